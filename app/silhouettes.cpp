#include "app/silhouettes.h"

#include "store/record_json.h"

#include <QBuffer>
#include <QByteArray>

#include <string_view>

namespace datrin::app {

namespace {

/// FNV-1a (G. Fowler, L. C. Noll, K.-P. Vo, 1991), 64 bits.
class Fingerprint {
public:
  void take(std::string_view bytes) {
    for (const char c : bytes) {
      value_ ^= static_cast<unsigned char>(c);
      value_ *= 0x100000001B3ULL;
    }
  }
  std::uint64_t value() const { return value_; }

private:
  std::uint64_t value_ = 0xCBF29CE484222325ULL;
};

std::uint64_t drawn_of(const build::Build& build, build::Id part) {
  Fingerprint print;
  const auto take = [&](build::Id id, const auto& record) {
    print.take(std::to_string(id));
    print.take(store::record_body(build::Record(record)).dump());
  };
  for (const auto& [id, body] : build.bodies_of(part)) {
    print.take(body.step); // as it is: it may be long
    auto rest = body;
    rest.step.clear();
    take(id, rest);
  }
  for (const auto& [id, surface] : build.surfaces_of(part)) take(id, surface);
  return print.value();
}

constexpr int longest_side = 2000; // pixels: what is larger is none of these

} // namespace

QImage Silhouettes::of(const build::Build& build, build::Id part) const {
  const auto found = kept_.find(part);
  return found != kept_.end() && found->second.drawn == drawn_of(build, part) ? found->second.picture
                                                                              : QImage();
}

void Silhouettes::keep(const build::Build& build, build::Id part, const QImage& picture) {
  kept_[part] = {drawn_of(build, part), picture};
}

// A line a part: its id, its fingerprint, the picture as PNG in base 64.
std::string Silhouettes::text() const {
  QByteArray out;
  for (const auto& [id, kept] : kept_) {
    QByteArray png;
    QBuffer buffer(&png);
    buffer.open(QIODevice::WriteOnly);
    if (!kept.picture.save(&buffer, "PNG")) continue;
    out += QByteArray::number(static_cast<qlonglong>(id)) + ' ' +
           QByteArray::number(static_cast<qulonglong>(kept.drawn), 16) + ' ' + png.toBase64() + '\n';
  }
  return out.toStdString();
}

void Silhouettes::read(const std::string& text) {
  kept_.clear();
  for (const auto& line : QByteArray::fromStdString(text).split('\n')) {
    const auto words = line.split(' ');
    bool number = false, print = false;
    if (words.size() != 3) continue;
    const auto id = words[0].toLongLong(&number);
    const auto drawn = words[1].toULongLong(&print, 16);
    auto picture = QImage::fromData(QByteArray::fromBase64(words[2]), "PNG");
    if (!number || !print || picture.isNull() || std::max(picture.width(), picture.height()) > longest_side)
      continue;
    kept_[id] = {drawn, picture.convertToFormat(QImage::Format_ARGB32_Premultiplied)};
  }
}

} // namespace datrin::app
