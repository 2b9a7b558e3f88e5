#include "build/description.h"

#include "build/descriptions.h"

namespace datrin::build {

Field Field::in(Measures what) const {
  Field f = *this;
  f.measures = what;
  return f;
}

Field Field::ruled(Rule what) const {
  Field f = *this;
  f.rule = what;
  return f;
}

Field Field::between(double low, double high) const {
  Field f = ruled(Rule::within);
  f.least = low;
  f.most = high;
  return f;
}

Field Field::from_version(int version) const {
  Field f = *this;
  f.since = version;
  return f;
}

Field Field::place() const {
  Field f = *this;
  f.orders = true;
  return f;
}

std::size_t id_count(const Field& field, const void* member) {
  return field.count > 0 ? field.count : field.list.size(member);
}

Id id_at(const Field& field, const void* member, std::size_t k) {
  if (field.count > 0) return static_cast<const Id*>(member)[k];
  return *static_cast<const Id*>(field.list.at(const_cast<void*>(member), k)); // reads only
}

const Field* Description::field(std::string_view wanted) const {
  for (const auto& f : fields)
    if (wanted == f.name) return &f;
  return nullptr;
}

double Description::place_of(const void* record) const {
  for (const auto& f : fields)
    if (f.orders)
      return f.type == FieldType::whole ? *static_cast<const int*>(f.at_const(record))
                                        : *static_cast<const double*>(f.at_const(record));
  return 0;
}

const std::vector<Description>& descriptions() {
  static const auto all = describe_all();
  return all;
}

const Description& description(int kind) {
  return descriptions()[static_cast<std::size_t>(kind)];
}

int kind_called(std::string_view name) {
  const auto& all = descriptions();
  for (std::size_t k = 0; k < all.size(); ++k)
    if (name == all[k].name) return static_cast<int>(k);
  return -1;
}

bool Record::operator==(const Record& other) const {
  return kind_ == other.kind_ &&
         (value_ == other.value_ || description().equal(value_.get(), other.value_.get()));
}

} // namespace datrin::build
