#include "store/survey_csv.h"

#include "quantity/text.h"
#include "store/csv.h"
#include "store/json_reader.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <optional>

namespace datrin::store {
namespace {

constexpr std::size_t longest_line = csv_longest_line, most_columns = 1000, most_touches = 200'000,
                      most_bad = 10'000;

std::optional<double> number(std::string text, bool decimal_comma) {
  if (decimal_comma) std::replace(text.begin(), text.end(), ',', '.');
  for (const auto& [minus, length] : {std::pair{"\u2212", std::size_t{3}}})
    if (text.starts_with(minus)) text.replace(0, length, "-");
  std::string_view digits = text;
  if (digits.starts_with('+')) digits.remove_prefix(1);
  double value = 0;
  const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
  if (error != std::errc{} || end != digits.data() + digits.size() || !std::isfinite(value))
    return std::nullopt;
  return value;
}

enum class Field {
  surface,
  x,
  y,
  z,
  tip_radius,
  toward_x,
  toward_y,
  toward_z,
  uncertainty,
  setting,
  note,
  other
};

struct Column {
  Field field = Field::other;
  double scale = 1; ///< to mm
  std::string name;
};

Column column_named(const std::string& name) {
  static const std::map<std::string, std::pair<Field, double>> known{
      {"surface", {Field::surface, 1}},
      {"x_mm", {Field::x, 1}},
      {"y_mm", {Field::y, 1}},
      {"z_mm", {Field::z, 1}},
      {"x_in", {Field::x, mm_per_inch}},
      {"y_in", {Field::y, mm_per_inch}},
      {"z_in", {Field::z, mm_per_inch}},
      {"tip_radius_mm", {Field::tip_radius, 1}},
      {"toward_x", {Field::toward_x, 1}},
      {"toward_y", {Field::toward_y, 1}},
      {"toward_z", {Field::toward_z, 1}},
      {"uncertainty_mm", {Field::uncertainty, 1}},
      {"setting", {Field::setting, 1}},
      {"note", {Field::note, 1}},
  };
  const auto found = known.find(lower_case(name));
  if (found == known.end()) return {Field::other, 1, name};
  return {found->second.first, found->second.second, name};
}

class CsvReader {
public:
  CsvReader(const std::string& label, const SurfaceNames& surfaces) : label_(label) {
    for (const auto& [id, name] : surfaces) {
      by_name_.emplace(slug(name), id);
      names_.push_back(name);
    }
  }

  SurveyCsv read(std::string_view text, const ReadOptions& options) {
    const auto size = static_cast<double>(text.size());
    constexpr std::size_t now_and_then = 1024; // lines
    if (!is_utf8(text)) return refuse("the text is not UTF-8; save it as UTF-8 and try again");
    if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
    std::size_t number_of_line = 0;
    bool header = false;
    while (!text.empty()) {
      const auto end = csv_line_end(text);
      const auto line = trimmed_end(text.substr(0, end));
      const auto whole = text.substr(0, end);
      text = end == std::string_view::npos ? std::string_view{} : text.substr(end + 1);
      const auto at = number_of_line + 1;
      if (at % now_and_then == 0) {
        if (options.stopped()) return refuse(reading_stopped);
        options.tell(1 - static_cast<double>(text.size()) / size);
      }
      number_of_line += 1 + static_cast<std::size_t>(std::count(whole.begin(), whole.end(), '\n'));
      if (line.size() > longest_line)
        return refuse(fmt::format("line {}: it is over 1 MiB long; this is no survey", at));
      if (out_.good.size() + out_.marks.size() == most_touches)
        return refuse(
            fmt::format("line {}: a survey has at most {} touches; read a cloud of points as a scan", at,
                        grouped(most_touches)));
      if (out_.bad.size() == most_bad)
        return refuse(fmt::format("{} lines cannot be read, the first: {}", grouped(most_bad),
                                  out_.bad.front().message));
      if (trimmed(line).empty() || trimmed(line).front() == '#') continue;
      if (!header) {
        if (!read_header(line, at)) return std::move(out_);
        header = true;
      } else {
        read_line(line, at);
      }
    }
    if (!header)
      return refuse("the file is empty; its first line names the columns: surface, x_mm, y_mm, z_mm");
    return std::move(out_);
  }

private:
  static std::string_view trimmed_end(std::string_view line) {
    while (!line.empty() && line.back() == '\r') line.remove_suffix(1);
    return line;
  }

  SurveyCsv refuse(const std::string& why) {
    SurveyCsv out;
    out.refused = true;
    out.message = label_ + ": " + why;
    return out;
  }

  bool read_header(std::string_view line, std::size_t at) {
    separator_ = csv_separator(line);
    const auto names = csv_split(line, separator_);
    const auto fail = [&](const std::string& why) {
      out_ = refuse(fmt::format("line {}: {}", at, why));
      return false;
    };
    if (!names) return fail("a quote is not closed");
    if (names->size() > most_columns)
      return fail(fmt::format("it names {} columns; at most {} are read", grouped(names->size()),
                              grouped(most_columns)));
    std::map<Field, std::string> seen;
    for (const auto& name : *names) {
      columns_.push_back(column_named(name));
      const auto field = columns_.back().field;
      if (field == Field::other) {
        if (!name.empty()) out_.kept_as_notes.push_back(name);
      } else if (const auto [entry, fresh] = seen.emplace(field, name); !fresh) {
        return fail(fmt::format("the columns \"{}\" and \"{}\" state the same thing; keep one", entry->second,
                                one_line(name)));
      }
    }
    if (!seen.count(Field::surface))
      return fail(fmt::format("there is no column \"surface\"{}", did_you_mean("surface", *names)));
    for (const auto& [field, name] : {std::pair{Field::x, 'x'}, {Field::y, 'y'}, {Field::z, 'z'}})
      if (!seen.count(field)) return fail(fmt::format("there is no column \"{0}_mm\" or \"{0}_in\"", name));
    return true;
  }

  void bad(std::size_t line, const std::string& column, const std::string& rule) {
    out_.bad.push_back({line, column.empty() ? fmt::format("line {}: {}", line, rule)
                                             : fmt::format("line {}, {}: {}", line, one_line(column), rule)});
  }

  void read_line(std::string_view text, std::size_t at) {
    const auto fields = csv_split(text, separator_);
    if (!fields) return bad(at, {}, "a quote is not closed");
    if (fields->size() > columns_.size())
      return bad(at, {},
                 fmt::format("there are {} fields under {} columns", fields->size(), columns_.size()));
    SurveyLine line;
    line.line = at;
    bool have_surface = false, have[3] = {false, false, false};
    std::string mark;
    std::string notes;
    for (std::size_t i = 0; i < fields->size(); ++i) {
      const auto& column = columns_[i];
      const bool words = column.field == Field::surface || column.field == Field::setting ||
                         column.field == Field::note || column.field == Field::other;
      const auto field = words ? csv_text((*fields)[i]) : (*fields)[i];
      if (field.empty()) continue;
      if (column.field == Field::surface) {
        const auto found = by_name_.find(slug(field));
        if (found == by_name_.end() && lower_case(field).starts_with("mark ")) {
          mark = trimmed(std::string_view(field).substr(5));
          have_surface = !mark.empty();
          continue;
        }
        if (found == by_name_.end())
          return bad(
              at, column.name,
              fmt::format("no surface is called \"{}\"{}", one_line(field), did_you_mean(field, names_)));
        line.surface = line.touch.surface = found->second;
        have_surface = true;
      } else if (column.field == Field::setting) {
        line.touch.setting = field;
      } else if (column.field == Field::note) {
        line.touch.note = field;
      } else if (column.field == Field::other) {
        notes += fmt::format("{}{}: {}", notes.empty() ? "" : "; ", column.name, field);
      } else {
        const auto value = number(field, separator_ == ';');
        if (!value) return bad(at, column.name, fmt::format("\"{}\" is not a number", one_line(field)));
        if (!is_length(*value * column.scale)) return bad(at, column.name, too_long);
        if (!take(line.touch, column, *value, have)) return bad(at, column.name, "must not be negative");
      }
    }
    if (!have_surface) return bad(at, "surface", "is empty");
    for (int k = 0; k < 3; ++k)
      if (!have[k]) return bad(at, std::string(1, "xyz"[k]), "is empty");
    if (line.touch.tip_radius > 0 && line.touch.toward.norm() < 1e-12)
      return bad(at, "toward_x",
                 "a tip radius needs the direction the tip travelled (toward_x, toward_y, toward_z)");
    if (!mark.empty()) {
      const auto& t = line.touch;
      Vec3 point = t.centre;
      if (t.tip_radius > 0) point += t.toward.normalized() * t.tip_radius;
      out_.marks.push_back(
          {0, t.setting, mark, point, t.uncertainty, static_cast<double>(out_.marks.size())});
      return;
    }
    if (!notes.empty()) line.touch.note += (line.touch.note.empty() ? "" : "; ") + notes;
    out_.good.push_back(std::move(line));
  }

  static bool take(build::Touch& touch, const Column& column, double value, bool (&have)[3]) {
    switch (column.field) {
    case Field::x:
    case Field::y:
    case Field::z: {
      const int k = column.field == Field::x ? 0 : column.field == Field::y ? 1 : 2;
      touch.centre[k] = value * column.scale;
      have[k] = true;
      return true;
    }
    case Field::toward_x:
      touch.toward.x() = value;
      return true;
    case Field::toward_y:
      touch.toward.y() = value;
      return true;
    case Field::toward_z:
      touch.toward.z() = value;
      return true;
    case Field::tip_radius:
      touch.tip_radius = value;
      return value >= 0;
    case Field::uncertainty:
      touch.uncertainty = value;
      return value >= 0;
    default:
      return true;
    }
  }

  std::string label_;
  std::map<std::string, build::Id> by_name_;
  std::vector<std::string> names_;
  std::vector<Column> columns_;
  char separator_ = ',';
  SurveyCsv out_;
};

} // namespace

SurveyCsv read_survey_csv(std::string_view text, const std::string& label, const SurfaceNames& surfaces,
                          const ReadOptions& options) {
  return CsvReader(label, surfaces).read(text, options);
}

SurveyCsv read_survey_csv_file(const std::string& path, const SurfaceNames& surfaces,
                               const ReadOptions& options) {
  try {
    return read_survey_csv(read_text_file(path), path, surfaces, options);
  } catch (const Refusal& refusal) {
    SurveyCsv out;
    out.refused = true;
    out.message = refusal.what();
    return out;
  }
}

std::string write_survey_csv(const std::vector<build::Touch>& touches, const SurfaceNames& surfaces,
                             const std::vector<build::Mark>& marks) {
  std::map<build::Id, std::string> names(surfaces.begin(), surfaces.end());
  std::string text =
      "surface,x_mm,y_mm,z_mm,tip_radius_mm,toward_x,toward_y,toward_z,uncertainty_mm,setting,note\n";
  for (const auto& t : touches)
    text += fmt::format("{},{},{},{},{},{},{},{},{},{},{}\n", csv_field(names[t.surface]), t.centre.x(),
                        t.centre.y(), t.centre.z(), t.tip_radius, t.toward.x(), t.toward.y(), t.toward.z(),
                        t.uncertainty, csv_field(t.setting), csv_field(t.note));
  for (const auto& m : marks)
    text += fmt::format("{},{},{},{},0,0,0,0,{},{},\n", csv_field("mark " + m.name), m.at.x(), m.at.y(),
                        m.at.z(), m.uncertainty, csv_field(m.setting));
  return text;
}

} // namespace datrin::store
