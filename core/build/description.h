#pragma once
// What a record consists of, said once: its members, their names in the file, the rules they keep, and which
// records they refer to. Writing and reading (store/record_json.h), checking (build/check.h), references
// (build/references.h), the build's index (build/index.h), the schema of the file and the tests of all of
// them follow from it.
//
// Lengths are mm, angles radians, temperatures °C.

#include "build/record.h"
#include "build/words.h"
#include "quantity/unit.h"

#include <memory>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace datrin::build {

enum class FieldType {
  text,   ///< std::string
  number, ///< double
  whole,  ///< int
  flag,   ///< bool
  flags,  ///< several bool, their number fixed
  word,   ///< an enumerator, by its word
  id,     ///< Id
  ids,    ///< several Id; their number fixed, or not
  vector, ///< Vec3
  pose,   ///< Pose
  list,   ///< several structs, described by `element`
  points  ///< the points of a scan
};

/// What values of a member are allowed.
enum class Rule {
  any,          ///< any finite number; any text
  not_negative, ///< 0 or more
  positive,     ///< above 0
  unit_length,  ///< a vector of length 1
  within        ///< from Field::least to Field::most
};

/// What a number measures.
enum class Measures { plain, length, angle, temperature };

/// What a member that holds an id says.
enum class Reference {
  none,
  needs,    ///< the record means nothing without that one, and goes with it; 0: it may go without
  points_to ///< it only points there: it is forgotten when that one goes
};

struct Field;

/// How the elements of a list are got at.
struct ListAccess {
  std::size_t (*size)(const void* list) = nullptr;
  void* (*at)(void* list, std::size_t k) = nullptr;
  void* (*append)(void* list) = nullptr; ///< a new element with its defaults
  void (*erase)(void* list, std::size_t k) = nullptr;
};

struct Field {
  const char* name = "";
  FieldType type = FieldType::number;
  void* (*at)(void* record) = nullptr; ///< the member
  Rule rule = Rule::any;
  Measures measures = Measures::plain;
  double least = 0, most = 0; ///< of Rule::within
  Reference reference = Reference::none;
  std::vector<int> refers_to{}; ///< kinds
  int since = 1;         ///< format version that has it: files before it leave it out, and its default stands
  bool orders = false;   ///< the place of the record in lists
  std::size_t count = 0; ///< of flags, and of ids whose number is fixed; 0: as many as there are
  Words words{nullptr, 0};
  int (*word_at)(const void* record) = nullptr;
  void (*set_word)(void* record, int word) = nullptr;
  ListAccess list{};
  std::vector<Field> element{};

  const void* at_const(const void* record) const { return at(const_cast<void*>(record)); } // reads only

  Field in(Measures what) const;
  Field ruled(Rule what) const;
  Field between(double low, double high) const;
  template <class... T>
  Field needs() const;
  template <class... T>
  Field points_to() const;
  Field from_version(int version) const;
  Field place() const; ///< orders the record
};

/// The ids of a member of type ids, whether their number is fixed or not.
std::size_t id_count(const Field& field, const void* member);
Id id_at(const Field& field, const void* member, std::size_t k);

/// A rule of several members together: the name of the one to put right and what is wrong; empty when all is
/// well.
struct Wrong {
  std::string field, rule;
  bool operator==(const Wrong&) const = default;
};

struct Description {
  const char* name = "";    ///< in the file: "touch"
  const char* meaning = ""; ///< in the schema
  std::vector<Field> fields;
  Wrong (*together)(const void* record) = nullptr; ///< may be null

  // Of the struct itself.
  std::shared_ptr<void> (*make)() = nullptr; ///< with its defaults
  std::shared_ptr<void> (*copy)(const void* record) = nullptr;
  bool (*equal)(const void* a, const void* b) = nullptr;

  const Field* field(std::string_view name) const;
  /// The place of a record in lists; 0 where it has none.
  double place_of(const void* record) const;
};

/// The description of every kind, by its number.
const std::vector<Description>& descriptions();
/// The kind called `name` in a file; −1: there is none.
int kind_called(std::string_view name);

// --- Making fields from members (used by descriptions.cpp)

namespace detail {

template <class>
struct MemberOf;
template <class C, class M>
struct MemberOf<M C::*> {
  using Class = C;
  using Type = M;
};

template <auto Member>
void* member_at(void* record) {
  return &(static_cast<typename MemberOf<decltype(Member)>::Class*>(record)->*Member);
}

template <class E>
struct WordAccess {
  template <auto Member>
  static int get(const void* record) {
    return static_cast<int>(static_cast<const typename MemberOf<decltype(Member)>::Class*>(record)->*Member);
  }
  template <auto Member>
  static void set(void* record, int word) {
    static_cast<typename MemberOf<decltype(Member)>::Class*>(record)->*Member = static_cast<E>(word);
  }
};

template <class List>
struct ListOf {
  static std::size_t size(const void* list) { return static_cast<const List*>(list)->size(); }
  static void* at(void* list, std::size_t k) { return &(*static_cast<List*>(list))[k]; }
  static void* append(void* list) { return &static_cast<List*>(list)->emplace_back(); }
  static void erase(void* list, std::size_t k) {
    auto& l = *static_cast<List*>(list);
    l.erase(l.begin() + static_cast<std::ptrdiff_t>(k));
  }
  static constexpr ListAccess access{&size, &at, &append, &erase};
};

} // namespace detail

/// The member as a field called `name`; its type follows from the member's.
template <auto Member>
Field field(const char* name) {
  using M = typename detail::MemberOf<decltype(Member)>::Type;
  Field f;
  f.name = name;
  f.at = &detail::member_at<Member>;
  if constexpr (std::is_same_v<M, std::string>)
    f.type = FieldType::text;
  else if constexpr (std::is_same_v<M, double>)
    f.type = FieldType::number;
  else if constexpr (std::is_same_v<M, int>)
    f.type = FieldType::whole;
  else if constexpr (std::is_same_v<M, bool>)
    f.type = FieldType::flag;
  else if constexpr (std::is_same_v<M, Id>)
    f.type = FieldType::id;
  else if constexpr (std::is_same_v<M, Vec3>)
    f.type = FieldType::vector;
  else if constexpr (std::is_same_v<M, Pose>)
    f.type = FieldType::pose;
  else if constexpr (std::is_same_v<M, std::vector<Id>>) {
    f.type = FieldType::ids;
    f.list = detail::ListOf<M>::access;
  } else if constexpr (std::is_same_v<M, std::array<Id, 3>>) {
    f.type = FieldType::ids;
    f.count = std::tuple_size_v<M>;
  } else if constexpr (std::is_same_v<M, std::array<bool, 6>>) {
    f.type = FieldType::flags;
    f.count = std::tuple_size_v<M>;
  } else if constexpr (std::is_same_v<M, std::shared_ptr<const ScanPoints>>) {
    f.type = FieldType::points;
  } else {
    static_assert(std::is_enum_v<M>, "a list is described by list_field");
    f.type = FieldType::word;
    f.words = words_of<M>();
    f.word_at = &detail::WordAccess<M>::template get<Member>;
    f.set_word = &detail::WordAccess<M>::template set<Member>;
  }
  return f;
}

/// A member that is a vector of structs, each with the fields `element`.
template <auto Member>
Field list_field(const char* name, std::vector<Field> element) {
  Field f;
  f.name = name;
  f.type = FieldType::list;
  f.at = &detail::member_at<Member>;
  f.list = detail::ListOf<typename detail::MemberOf<decltype(Member)>::Type>::access;
  f.element = std::move(element);
  return f;
}

template <class... T>
Field Field::needs() const {
  Field f = *this;
  f.reference = Reference::needs;
  f.refers_to = {kind_of<T>...};
  return f;
}
template <class... T>
Field Field::points_to() const {
  Field f = *this;
  f.reference = Reference::points_to;
  f.refers_to = {kind_of<T>...};
  return f;
}

template <class T>
Description describe(const char* name, const char* meaning, std::vector<Field> fields,
                     Wrong (*together)(const void*) = nullptr) {
  Description d;
  d.name = name;
  d.meaning = meaning;
  d.fields = std::move(fields);
  d.together = together;
  d.make = [] { return std::shared_ptr<void>(std::make_shared<T>()); };
  d.copy = [](const void* record) {
    return std::shared_ptr<void>(std::make_shared<T>(*static_cast<const T*>(record)));
  };
  d.equal = [](const void* a, const void* b) {
    return *static_cast<const T*>(a) == *static_cast<const T*>(b);
  };
  return d;
}

} // namespace datrin::build
