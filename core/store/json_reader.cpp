#include "store/json_reader.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <cmath>
#include <filesystem>
#include <fstream>
#include <set>

namespace datrin::store {

using nlohmann::json;

namespace {

std::string line_and_column(std::string_view text, std::size_t byte) {
  std::size_t line = 1, column = 1;
  for (std::size_t i = 0; i < std::min(byte, text.size()); ++i) {
    if (text[i] == '\n') {
      ++line;
      column = 1;
    } else if ((static_cast<unsigned char>(text[i]) & 0xC0) != 0x80) {
      ++column;
    }
  }
  return fmt::format("line {}, column {}", line, column);
}

/// Finds a key that stands twice in one object; parsing itself would keep the last one silently.
class DuplicateKeys : public nlohmann::json_sax<json> {
public:
  bool null() override { return true; }
  bool boolean(bool) override { return true; }
  bool number_integer(number_integer_t) override { return true; }
  bool number_unsigned(number_unsigned_t) override { return true; }
  bool number_float(number_float_t, const string_t&) override { return true; }
  bool string(string_t&) override { return true; }
  bool binary(binary_t&) override { return true; }
  bool start_object(std::size_t) override {
    keys_.emplace_back();
    return true;
  }
  bool end_object() override {
    keys_.pop_back();
    return true;
  }
  bool key(string_t& name) override {
    if (keys_.back().insert(name).second) return true;
    twice = name;
    return false;
  }
  bool start_array(std::size_t) override { return true; }
  bool end_array() override { return true; }
  bool parse_error(std::size_t position, const std::string&,
                   const nlohmann::detail::exception& error) override {
    byte = position;
    what = error.what();
    overflow = error.id == 406;
    return false;
  }

  std::string twice, what;
  std::size_t byte = 0;
  bool overflow = false;

private:
  std::vector<std::set<std::string>> keys_;
};

/// The reason in the library's message, without its own prefix and position.
std::string reason_of(const std::string& what) {
  const auto colon = what.rfind("; last read");
  auto reason = what.substr(0, colon);
  if (const auto start = reason.find("- "); start != std::string::npos)
    reason = reason.substr(start + 2);
  else if (const auto bracket = reason.find("] "); bracket != std::string::npos)
    reason = reason.substr(bracket + 2);
  return reason;
}

} // namespace

std::string read_text_file(const std::string& path) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error)) throw Refusal(path + ": is a folder, not a file");
  std::ifstream file(path, std::ios::binary);
  if (!file) throw Refusal(path + ": cannot be opened; check that it is there and may be read");
  const auto size = std::filesystem::file_size(path, error);
  if (!error && size > largest_file) throw Refusal(path + ": is over 256 MiB");
  std::string text;
  std::vector<char> block(1 << 16);
  while (file.read(block.data(), static_cast<std::streamsize>(block.size())) || file.gcount() > 0) {
    text.append(block.data(), static_cast<std::size_t>(file.gcount()));
    if (text.size() > largest_file) throw Refusal(path + ": is over 256 MiB");
  }
  if (file.bad()) throw Refusal(path + ": could not be read to its end");
  if (!is_utf8(text)) {
    std::size_t line_start = 0, line = 1;
    while (true) {
      const auto end = text.find('\n', line_start);
      if (!is_utf8(
              std::string_view(text).substr(line_start, end == std::string::npos ? end : end - line_start)))
        throw Refusal(fmt::format("{}: line {}: the text is not UTF-8", path, line));
      if (end == std::string::npos) throw Refusal(fmt::format("{}: the text is not UTF-8", path));
      line_start = end + 1;
      ++line;
    }
  }
  return text;
}

json parse_json(std::string_view text, const std::string& label) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  if (trimmed(text).empty()) throw Refusal(label + ": line 1, column 1: the file is empty");
  DuplicateKeys duplicates;
  if (!json::sax_parse(text.begin(), text.end(), &duplicates)) {
    if (!duplicates.twice.empty())
      throw Refusal(fmt::format("{}: the key \"{}\" stands twice in one object", label, duplicates.twice));
    const auto byte = duplicates.byte > 0 ? duplicates.byte - 1 : 0;
    throw Refusal(fmt::format("{}: {}: {}", label, line_and_column(text, byte),
                              duplicates.overflow ? "the number is too large"
                                                  : "this is not JSON: " + reason_of(duplicates.what)));
  }
  return json::parse(text.begin(), text.end());
}

std::string JsonAt::pointer() const {
  std::string text;
  for (const auto* step = way_.get(); step != nullptr; step = step->before.get())
    text = step->key != nullptr ? fmt::format("/{}{}", step->key, text)
                                : fmt::format("/{}{}", step->index, text);
  return text;
}

void JsonAt::refuse(const std::string& rule) const {
  throw Refusal(fmt::format("{}: {}: {}", *label_, way_ ? pointer() : "/", rule));
}

void JsonAt::warn(const std::string& text) const {
  warnings_->push_back(fmt::format("{}: {}: {}", *label_, way_ ? pointer() : "/", text));
}

JsonAt JsonAt::at(const char* key) const {
  if (!value_->is_object()) refuse("must be an object");
  const auto found = value_->find(key);
  if (found == value_->end()) JsonAt(*value_, *this, key, 0).refuse("is missing");
  return {*found, *this, key, 0};
}

JsonAt JsonAt::at(std::size_t index) const {
  return {(*value_)[index], *this, nullptr, index};
}

std::size_t JsonAt::size() const {
  if (!value_->is_array()) refuse("must be a list");
  return value_->size();
}

double JsonAt::number() const {
  if (!value_->is_number()) refuse("must be a number");
  const double number = value_->get<double>();
  if (!std::isfinite(number)) refuse("must be a finite number");
  return number;
}

double JsonAt::positive() const {
  const double value = number();
  if (!(value > 0)) refuse("must be above 0");
  return value;
}

double JsonAt::not_negative() const {
  const double value = number();
  if (value < 0) refuse("must not be negative");
  return value;
}

std::string JsonAt::text() const {
  if (!value_->is_string()) refuse("must be a text");
  return value_->get<std::string>();
}

std::string JsonAt::name() const {
  auto value = text();
  if (trimmed(value).empty()) refuse("must not be empty");
  return value;
}

Vec3 JsonAt::vector() const {
  if (!value_->is_array() || value_->size() != 3) refuse("must be three numbers");
  return {at(std::size_t{0}).number(), at(1).number(), at(2).number()};
}

Vec3 JsonAt::direction() const {
  const Vec3 value = vector();
  const double largest = value.cwiseAbs().maxCoeff();
  if (!(largest > 1e-12)) refuse("must not have zero length");
  return (value / largest).normalized();
}

void JsonAt::only_keys(const std::vector<std::string>& known) const {
  if (!value_->is_object()) refuse("must be an object");
  for (const auto& [key, unused] : value_->items()) {
    if (std::find(known.begin(), known.end(), key) != known.end()) continue;
    const auto text = fmt::format("there is no key called \"{}\" here{}", key, did_you_mean(key, known));
    if (!way_)
      JsonAt(*value_, *this, key.c_str(), 0).refuse(text);
    else
      warn(text + "; it was left out");
  }
}

} // namespace datrin::store
