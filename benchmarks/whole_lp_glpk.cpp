#include "benchmarks/whole_lp_glpk.h"

#include <Eigen/Geometry>
#include <glpk.h>

#include <algorithm>
#include <vector>

namespace datrin::reference {
namespace {

constexpr double size = 40; // mm by which turns are counted

struct Row {
  Eigen::Matrix<double, 6, 1> rate;
  double margin;
};

std::vector<Row> rows_at(const casting::SeatInput& input, const Pose& pose) {
  std::vector<Row> rows;
  const auto add = [&](const casting::SeatPoint& point, const Surface& shape, double sign, double allowance) {
    const Vec3 x = pose.apply(point.xyz);
    const Vec3 direction = sign * stock_direction(shape, x);
    Row row;
    row.rate << direction, x.cross(direction) / size;
    row.margin = sign * stock_at(shape, x) - allowance - point.uncertainty;
    rows.push_back(row);
  };
  for (const auto& point : input.points) {
    const auto& surface = input.surfaces[static_cast<std::size_t>(point.surface)];
    if (surface.machined) add(point, surface.shape, 1, surface.required);
    for (const auto& wall : input.walls)
      if (wall.from == point.surface)
        add(point, input.surfaces[static_cast<std::size_t>(wall.to)].shape, -1, wall.least);
  }
  return rows;
}

} // namespace

WholeLpResult seat_by_whole_lp(const casting::SeatInput& input, const Pose& start, double reach, int most,
                               double most_seconds) {
  WholeLpResult result;
  result.pose = start;
  result.least = casting::margins_at(input, start).least;
  for (int step = 0; step < most && reach > 1e-9; ++step) {
    const auto rows = rows_at(input, result.pose);
    glp_prob* lp = glp_create_prob();
    glp_set_obj_dir(lp, GLP_MAX);
    glp_add_cols(lp, 7);
    for (int j = 1; j <= 6; ++j) glp_set_col_bnds(lp, j, GLP_DB, -reach, reach);
    glp_set_col_bnds(lp, 7, GLP_FR, 0, 0);
    glp_set_obj_coef(lp, 7, 1);
    const auto count = static_cast<int>(rows.size());
    glp_add_rows(lp, count);
    std::vector<int> ia{0}, ja{0};
    std::vector<double> ar{0};
    for (int i = 0; i < count; ++i) {
      const auto& row = rows[static_cast<std::size_t>(i)];
      glp_set_row_bnds(lp, i + 1, GLP_LO, -row.margin, 0);
      for (int j = 0; j < 6; ++j) {
        ia.push_back(i + 1);
        ja.push_back(j + 1);
        ar.push_back(row.rate[j]);
      }
      ia.push_back(i + 1);
      ja.push_back(7);
      ar.push_back(-1);
    }
    glp_load_matrix(lp, static_cast<int>(ar.size()) - 1, ia.data(), ja.data(), ar.data());
    glp_smcp parameters;
    glp_init_smcp(&parameters);
    parameters.msg_lev = GLP_MSG_OFF;
    parameters.tm_lim = static_cast<int>(std::min(2e9, most_seconds * 1000));
    const bool solved = glp_simplex(lp, &parameters) == 0 && glp_get_status(lp) == GLP_OPT;
    Eigen::Matrix<double, 6, 1> d;
    for (int j = 0; j < 6; ++j) d[j] = glp_get_col_prim(lp, j + 1);
    glp_delete_prob(lp);
    ++result.programmes;
    if (!solved) return result;
    result.solved = true;
    const Pose trial = moved(result.pose, Vec3::Zero(), d.head<3>(), d.tail<3>() / size);
    const double least = casting::margins_at(input, trial).least;
    if (least > result.least) {
      const double gain = least - result.least;
      result.pose = trial;
      result.least = least;
      if (gain < 1e-9) break;
    } else {
      reach *= 0.25;
    }
  }
  return result;
}

WholeLpResult whole_lp_dual(const casting::SeatInput& input, const Pose& at, double reach) {
  WholeLpResult result;
  result.pose = at;
  const auto rows = rows_at(input, at);
  const auto count = static_cast<int>(rows.size());
  glp_prob* lp = glp_create_prob();
  glp_set_obj_dir(lp, GLP_MIN);
  glp_add_rows(lp, 7);
  for (int j = 1; j <= 6; ++j) glp_set_row_bnds(lp, j, GLP_FX, 0, 0);
  glp_set_row_bnds(lp, 7, GLP_FX, 1, 1);
  glp_add_cols(lp, count + 12);
  std::vector<int> index(8);
  std::vector<double> value(8);
  for (int i = 0; i < count; ++i) {
    const auto& row = rows[static_cast<std::size_t>(i)];
    glp_set_col_bnds(lp, i + 1, GLP_LO, 0, 0);
    glp_set_obj_coef(lp, i + 1, row.margin);
    for (int j = 1; j <= 6; ++j) {
      index[static_cast<std::size_t>(j)] = j;
      value[static_cast<std::size_t>(j)] = row.rate[j - 1];
    }
    index[7] = 7;
    value[7] = 1;
    glp_set_mat_col(lp, i + 1, 7, index.data(), value.data());
  }
  for (int k = 0; k < 12; ++k) {
    const int column = count + k + 1;
    glp_set_col_bnds(lp, column, GLP_LO, 0, 0);
    glp_set_obj_coef(lp, column, reach);
    index[1] = k / 2 + 1;
    value[1] = k % 2 ? 1 : -1;
    glp_set_mat_col(lp, column, 1, index.data(), value.data());
  }
  glp_smcp parameters;
  glp_init_smcp(&parameters);
  parameters.msg_lev = GLP_MSG_OFF;
  result.solved = glp_simplex(lp, &parameters) == 0 && glp_get_status(lp) == GLP_OPT;
  result.least = glp_get_obj_val(lp);
  result.programmes = 1;
  glp_delete_prob(lp);
  return result;
}

} // namespace datrin::reference
