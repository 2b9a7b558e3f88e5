#pragma once
// What belongs to whom, kept in order: for every record the records of each kind that need it, and all of
// each kind. By the records' descriptions: a new kind is indexed by being described. Edits keep it true one
// record at a time.

#include "build/record.h"

#include <algorithm>
#include <cstdint>
#include <memory>
#include <unordered_map>
#include <utility>
#include <vector>

namespace datrin::build {

/// One record in a list.
struct ListEntry {
  double place = 0; ///< lists are ordered by this, then by id
  Id id = 0;
  std::shared_ptr<const void> value;

  bool before(double other_place, Id other_id) const {
    return place != other_place ? place < other_place : id < other_id;
  }
};

using Entries = std::vector<ListEntry>;

/// The records of type T in a list, as the build stood when it was asked for: it stays good, and stays the
/// same, whatever is edited meanwhile. Elements are pairs of the id and a reference to the record.
template <class T>
class List {
public:
  using value_type = std::pair<Id, const T&>;

  class iterator {
  public:
    using iterator_category = std::random_access_iterator_tag;
    using value_type = std::pair<Id, const T&>;
    using difference_type = std::ptrdiff_t;
    using reference = value_type;
    struct pointer {
      value_type pair;
      const value_type* operator->() const { return &pair; }
    };

    iterator() = default;
    explicit iterator(const ListEntry* at) : at_(at) {}
    value_type operator*() const { return {at_->id, *static_cast<const T*>(at_->value.get())}; }
    pointer operator->() const { return {**this}; }
    value_type operator[](difference_type n) const { return *iterator(at_ + n); }
    iterator& operator++() {
      ++at_;
      return *this;
    }
    iterator operator++(int) { return iterator(at_++); }
    iterator& operator--() {
      --at_;
      return *this;
    }
    iterator& operator+=(difference_type n) {
      at_ += n;
      return *this;
    }
    friend iterator operator+(iterator it, difference_type n) { return iterator(it.at_ + n); }
    friend iterator operator-(iterator it, difference_type n) { return iterator(it.at_ - n); }
    friend difference_type operator-(iterator a, iterator b) { return a.at_ - b.at_; }
    auto operator<=>(const iterator&) const = default;

  private:
    const ListEntry* at_ = nullptr;
  };

  List() = default;
  explicit List(std::shared_ptr<const Entries> entries) : entries_(std::move(entries)) {}

  std::size_t size() const { return entries_ ? entries_->size() : 0; }
  bool empty() const { return size() == 0; }
  iterator begin() const { return iterator(entries_ ? entries_->data() : nullptr); }
  iterator end() const { return begin() + static_cast<std::ptrdiff_t>(size()); }
  value_type operator[](std::size_t k) const { return begin()[static_cast<std::ptrdiff_t>(k)]; }
  value_type front() const { return (*this)[0]; }
  value_type back() const { return (*this)[size() - 1]; }

  /// The same records, none of them changed. (Records do not change once made, so that the pointers tell.)
  bool operator==(const List& other) const {
    return entries_ == other.entries_ ||
           std::equal(
               begin_entry(), end_entry(), other.begin_entry(), other.end_entry(),
               [](const ListEntry& a, const ListEntry& b) { return a.id == b.id && a.value == b.value; });
  }
  /// The same records by their ids, in the same order.
  bool same_ids(const List& other) const {
    return entries_ == other.entries_ ||
           std::equal(begin_entry(), end_entry(), other.begin_entry(), other.end_entry(),
                      [](const ListEntry& a, const ListEntry& b) { return a.id == b.id; });
  }

private:
  const ListEntry* begin_entry() const { return entries_ ? entries_->data() : nullptr; }
  const ListEntry* end_entry() const { return begin_entry() + size(); }

  std::shared_ptr<const Entries> entries_;
};

class Index {
public:
  void add(Id id, const Record& record);
  void remove(Id id, const Record& record);

  /// All records of `kind` (owner 0), or those of them that need `owner`; may be null. By their place in
  /// lists, then by id; all of a kind that needs others by id only.
  std::shared_ptr<const Entries> entries(int kind, Id owner) const;

private:
  struct Key {
    int kind = 0;
    Id owner = 0;
    bool operator==(const Key&) const = default;
  };
  struct Hash {
    std::size_t operator()(const Key& key) const {
      return std::hash<std::uint64_t>()(static_cast<std::uint64_t>(key.owner) * kind_count +
                                        static_cast<std::uint64_t>(key.kind));
    }
  };
  void put(const Key& key, Id id, double place, const std::shared_ptr<const void>& value);
  void drop(const Key& key, Id id, double place);

  /// Shared with the lists given out; one of those still held is copied before it is changed.
  std::unordered_map<Key, std::shared_ptr<Entries>, Hash> lists_;
};

} // namespace datrin::build
