#pragma once
// Reading JSON that people or other programs wrote: every refusal names the file, the place and the rule
// broken.

#include "geometry/pose.h"
#include "store/read_options.h"

#include <nlohmann/json.hpp>

#include <cstddef>
#include <functional>
#include <memory>
#include <stdexcept>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::store {

/// Why an input was refused. Thrown inside a reader and caught at its door; callers get text in a result.
class Refusal : public std::runtime_error {
public:
  using std::runtime_error::runtime_error;
};

inline constexpr std::size_t largest_file = std::size_t{256} << 20; ///< bytes

/// The bytes of the file at `path`. Throws Refusal when it cannot be read, is over 256 MiB or is not UTF-8.
std::string read_text_file(const std::string& path);

/// So much may a document hold that is read as a whole, and so much one element of a list that is read one by
/// one: each value takes some 100 bytes while it is read.
inline constexpr std::size_t most_values = 4'000'000, most_values_in_one = 1'000'000;

/// So many elements may such lists hold: records and lines of a log together.
inline constexpr std::size_t most_elements = 2'000'000;

/// Parses `text`. Throws Refusal with "label: line L, column C: …" for anything that is not JSON (RFC 8259),
/// for numbers that overflow, for a key that stands twice in one object, and for more than `most_values`.
nlohmann::json parse_json(std::string_view text, const std::string& label);

/// Parses what this program wrote itself; throws nlohmann::json::exception for anything that is not JSON. All
/// of the core parses here, where the parser is built to be fast.
nlohmann::json parse_stored(std::string_view text);

/// Given an element of a list of the document's own: the list's key, the element's place in it, the element.
using TakeElement =
    std::function<void(const std::string& list, std::size_t index, const nlohmann::json& element)>;

/// The same for documents whose lists are long: each element of a list that is a member of the document goes
/// to `take` when it is read, and is not kept; the list is empty in what is returned. So memory is bounded by
/// the largest element. Throws Refusal also when it is stopped.
nlohmann::json parse_json(std::string_view text, const std::string& label, const TakeElement& take,
                          const ReadOptions& options = {});

/// A value in a document and the way to it, so that a refusal can say where.
class JsonAt {
public:
  JsonAt(const nlohmann::json& value, std::string label, std::vector<std::string>& warnings)
      : value_(&value), label_(std::make_shared<const std::string>(std::move(label))), warnings_(&warnings) {}

  [[noreturn]] void refuse(const std::string& rule) const;
  void warn(const std::string& text) const;

  bool is_null() const { return value_->is_null(); }
  bool has(const char* key) const { return value_->is_object() && value_->contains(key); }
  JsonAt at(const char* key) const;   ///< refused when missing; `key` outlives the value
  JsonAt at(std::size_t index) const; ///< index within size()
  std::size_t size() const;           ///< of an array; refused for anything else

  /// `element` as it stood at `index` in the list `key` here: for what `parse_json` gave away.
  JsonAt element(const char* key, std::size_t index, const nlohmann::json& element) const;

  double number() const;       ///< finite
  double positive() const;     ///< above 0
  double not_negative() const; ///< 0 or more
  std::string text() const;    ///< a string
  std::string name() const;    ///< a string that is not empty
  Vec3 vector() const;         ///< three finite numbers
  Vec3 direction() const;      ///< three numbers, not all 0; returned with unit length

  /// Refuses anything but an object; keys not among `known` are refused at top level, warned about deeper
  /// down.
  void only_keys(const std::vector<std::string>& known) const;

private:
  /// One step of the way here; put into words only when a refusal wants them.
  struct Step {
    std::shared_ptr<const Step> before;
    const char* key = nullptr; ///< null: an index
    std::size_t index = 0;
  };
  JsonAt(const nlohmann::json& value, const JsonAt& from, const char* key, std::size_t index)
      : value_(&value), label_(from.label_), way_(std::make_shared<const Step>(Step{from.way_, key, index})),
        warnings_(from.warnings_) {}
  std::string pointer() const; ///< RFC 6901, "" at the root

  const nlohmann::json* value_;
  std::shared_ptr<const std::string> label_;
  std::shared_ptr<const Step> way_;
  std::vector<std::string>* warnings_;
};

} // namespace datrin::store
