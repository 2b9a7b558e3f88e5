#include "store/json_reader.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <iterator>
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

/// Finds a key that stands twice in one object (parsing itself would keep the last one silently), and what is
/// more than can be read in bounded memory.
class BeforeParsing : public nlohmann::json_sax<json> {
public:
  /// `one_by_one`: the elements of the document's own lists are not kept together.
  explicit BeforeParsing(bool one_by_one) : one_by_one_(one_by_one) {}

  bool null() override { return count(); }
  bool boolean(bool) override { return count(); }
  bool number_integer(number_integer_t) override { return count(); }
  bool number_unsigned(number_unsigned_t) override { return count(); }
  bool number_float(number_float_t, const string_t&) override { return count(); }
  bool string(string_t&) override { return count(); }
  bool binary(binary_t&) override { return count(); }
  bool start_object(std::size_t) override { return count() && open(true); }
  bool end_object() override { return close(); }
  bool key(string_t& name) override {
    if (open_.back().keys.insert(name).second) return true;
    twice = name;
    return false;
  }
  bool start_array(std::size_t) override { return count() && open(false); }
  bool end_array() override { return close(); }
  bool parse_error(std::size_t position, const std::string&,
                   const nlohmann::detail::exception& error) override {
    byte = position;
    control = std::string_view(error.what()).find("control character") != std::string_view::npos;
    overflow = error.id == 406;
    return false;
  }

  std::string twice, too_much;
  std::size_t byte = 0;
  bool overflow = false, control = false; ///< a control character in a text

private:
  struct Open {
    bool object = false;
    std::set<std::string> keys;
  };

  bool open(bool object) {
    open_.push_back({object, {}});
    constexpr std::size_t deepest = 1000;
    if (open_.size() > deepest)
      too_much = fmt::format("more than {} lists and objects in one another", deepest);
    return open_.size() <= deepest;
  }
  bool close() {
    open_.pop_back();
    return true;
  }
  bool in_list() const { return open_.size() == 2 && open_[0].object && !open_[1].object; }
  bool count() {
    if (one_by_one_ && in_list()) {
      values_ = 0;
      if (++elements_ > most_elements)
        too_much = fmt::format("more than {} elements", grouped(most_elements));
    }
    const auto most = one_by_one_ ? most_values_in_one : most_values;
    if (++values_ > most) too_much = fmt::format("more than {} values", grouped(most));
    return too_much.empty();
  }

  bool one_by_one_;
  std::vector<Open> open_;
  std::size_t values_ = 0, elements_ = 0;
};

/// Goes through a text twice and says how far it is; stops by a Refusal.
class Walk {
public:
  Walk(std::string_view text, const std::string& label, const ReadOptions& options)
      : text_(text), label_(label), options_(options) {}

  /// A place in the text that tells of its progress.
  class Place {
  public:
    using iterator_category = std::input_iterator_tag;
    using value_type = char;
    using difference_type = std::ptrdiff_t;
    using pointer = const char*;
    using reference = const char&;

    Place(const char* at, const Walk* walk) : at_(at), walk_(walk) {}
    reference operator*() const { return *at_; }
    Place& operator++() {
      constexpr std::uintptr_t now_and_then = 0xFFFF;
      if ((reinterpret_cast<std::uintptr_t>(++at_) & now_and_then) == 0) walk_->tell(at_);
      return *this;
    }
    Place operator++(int) {
      const auto before = *this;
      ++*this;
      return before;
    }
    bool operator==(const Place& other) const { return at_ == other.at_; }

  private:
    const char* at_;
    const Walk* walk_;
  };

  Place begin() const { return {text_.data(), this}; }
  Place end() const { return {text_.data() + text_.size(), this}; }
  void begin_again() { done_ = 0.5; }
  std::string_view text() const { return text_; }

private:
  void tell(const char* at) const {
    if (options_.stopped()) throw Refusal(fmt::format("{}: {}", label_, reading_stopped));
    options_.tell(done_ + 0.5 * static_cast<double>(at - text_.data()) / static_cast<double>(text_.size()));
  }

  std::string_view text_;
  const std::string& label_;
  const ReadOptions& options_;
  double done_ = 0;
};

/// Why `text` is no JSON, where reading it stopped at `byte`.
std::string not_json(std::string_view text, std::size_t byte, bool in_a_text) {
  if (byte >= text.size()) return "it ends too early";
  if (in_a_text)
    return "a text in it holds a line end or another control character, which must be written as \\u000a";
  std::size_t length = 1; // of the character, which may take several bytes
  while (byte > 0 && (static_cast<unsigned char>(text[byte]) & 0xC0) == 0x80) --byte;
  while (byte + length < text.size() && (static_cast<unsigned char>(text[byte + length]) & 0xC0) == 0x80)
    ++length;
  const auto character = one_line(text.substr(byte, length));
  return character == " " ? "a blank cannot stand here" : fmt::format("\"{}\" cannot stand here", character);
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
  if (!error) text.reserve(size + 1);
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

namespace {

/// `text` without its byte order mark; throws when nothing is left.
std::string_view without_mark(std::string_view text, const std::string& label) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  if (trimmed(text).empty()) throw Refusal(label + ": line 1, column 1: the file is empty");
  return text;
}

/// Throws when `walk` does not go through JSON that can be read.
void must_be_readable(const Walk& walk, const std::string& label, bool one_by_one) {
  BeforeParsing look(one_by_one);
  if (json::sax_parse(walk.begin(), walk.end(), &look)) return;
  if (!look.too_much.empty())
    throw Refusal(fmt::format("{}: it holds {}, more than can be read at once", label, look.too_much));
  if (!look.twice.empty())
    throw Refusal(fmt::format("{}: the key \"{}\" stands twice in one object", label, one_line(look.twice)));
  const auto byte = look.byte > 0 ? look.byte - 1 : 0;
  throw Refusal(fmt::format("{}: {}: {}", label, line_and_column(walk.text(), byte),
                            look.overflow
                                ? "the number is too large"
                                : "this is not JSON: " + not_json(walk.text(), byte, look.control)));
}

} // namespace

json parse_stored(std::string_view text) {
  return json::parse(text.begin(), text.end());
}

json parse_json(std::string_view text, const std::string& label) {
  const ReadOptions options;
  const Walk walk(without_mark(text, label), label, options);
  must_be_readable(walk, label, false);
  return json::parse(walk.text().begin(), walk.text().end());
}

json parse_json(std::string_view text, const std::string& label, const TakeElement& take,
                const ReadOptions& options) {
  Walk walk(without_mark(text, label), label, options);
  must_be_readable(walk, label, true);
  walk.begin_again();
  std::string list;
  bool in_list = false;
  std::size_t index = 0;
  const auto keep = [&](int depth, json::parse_event_t event, json& parsed) {
    using on = json::parse_event_t;
    if (depth == 1 && event == on::key) {
      list = parsed.get<std::string>();
      index = 0;
      in_list = false;
    } else if (depth == 1 && event == on::array_start) {
      in_list = true;
    } else if (depth == 2 && in_list &&
               (event == on::value || event == on::object_end || event == on::array_end)) {
      take(list, index++, parsed);
      return false;
    }
    return true;
  };
  return json::parse(walk.begin(), walk.end(), keep);
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

JsonAt JsonAt::element(const char* key, std::size_t index, const json& element) const {
  return {element, JsonAt(element, *this, key, 0), nullptr, index};
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
    const auto text =
        fmt::format("there is no key called \"{}\" here{}", one_line(key), did_you_mean(key, known));
    if (!way_)
      JsonAt(*value_, *this, key.c_str(), 0).refuse(text);
    else
      warn(text + "; it was left out");
  }
}

} // namespace datrin::store
