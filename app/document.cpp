#include "app/document.h"

#include "build/now.h"
#include "solid/follow.h"

#include "sheets/figures.h"

#include <QFileInfo>
#include <QTimer>

#include <algorithm>
#include <filesystem>
#include <variant>

namespace datrin::app {

using sheets::qt;

namespace {

/// What was found of a file names paths, each as long as it is, and what to do stands last.
QString told(const store::FileOutcome& outcome) {
  return shown(outcome.message, 4000);
}

/// In a menu.
QString in_menu(const std::string& label) {
  return shown(label, 100);
}

} // namespace

Document::Document(QObject* parent) : QObject(parent), solids_(new PartSolids(this)) {
  // What another program writes into the file is noticed soon, not only at the next edit.
  constexpr int now_and_then_ms = 2000;
  auto* look = new QTimer(this);
  connect(look, &QTimer::timeout, this, [this] { look_after_file(); });
  look->start(now_and_then_ms);
}

bool Document::look_after_file() {
  if (!file_) return true;
  const auto outcome = file_->look_after();
  if (outcome.status == store::FileStatus::moved) {
    tell_moved(outcome);
    return false;
  }
  const bool is_new = !outcome.ok() && !said_lost_;
  said_lost_ = !outcome.ok();
  if (is_new) emit refused(told(outcome));
  return !is_new; // said once: the window then closes all the same
}

Document::~Document() {
  if (file_) (void)file_->look_after();
  keep_silhouettes();
}

namespace {

constexpr const char* silhouettes_name = "silhouettes";

/// Where one stands at the bench, and where its zeros are: no size, no plan follows from it.
bool of_the_bench_alone(const build::Edit& edit) {
  const auto bench = [](const std::optional<build::Record>& record) {
    return !record || record->as<build::BenchPlace>() || record->as<build::BenchZero>();
  };
  return std::all_of(edit.changes.begin(), edit.changes.end(),
                     [&](const auto& change) { return bench(change.before) && bench(change.after); });
}

} // namespace

void Document::keep_silhouettes() {
  if (file_) file_->keep_beside(silhouettes_name, silhouettes_.text());
}

QString Document::path() const {
  return file_ ? whole(file_->path()) : QString();
}
const build::Build& Document::build() const {
  return file_ ? file_->build() : none_;
}

void Document::take(store::BuildFile file) {
  if (file_) (void)file_->look_after(); // what was done to the one let go of
  keep_silhouettes();
  solids_->forget();
  silhouettes_.read(file.beside(silhouettes_name));
  file_.emplace(std::move(file));
  ++plan_revision_;
  part_ = piece_ = 0;
  mend_choice();
  emit changed();
}

QString Document::open(const QString& path, bool* opened, const Wait& wait) {
  if (opened) *opened = false;
  // The same file again: let go of it first, or it would be found held by this very window.
  if (file_ && QFileInfo(path).canonicalFilePath() == QFileInfo(this->path()).canonicalFilePath() &&
      QFileInfo::exists(path) && file_->read_only().empty()) {
    if (opened) *opened = true;
    return {};
  }
  store::FileOutcome outcome;
  std::optional<store::BuildFile> file;
  const auto read = [&] { file = store::BuildFile::open(path.toStdString(), outcome); };
  if (const auto thrown = wait ? wait(read) : (read(), QString()); !thrown.isEmpty())
    return path + ": " + thrown;
  if (!file) return told(outcome);
  take(std::move(*file));
  if (opened) *opened = true;
  return told(outcome);
}

QString Document::read_only() const {
  return file_ ? qt(file_->read_only()) : QString();
}

QString Document::create(const QString& path, const QString& name) {
  store::FileOutcome outcome;
  auto file = store::BuildFile::create(path.toStdString(), name.toStdString(), outcome);
  if (!file) return told(outcome);
  take(std::move(*file));
  return {};
}

void Document::tell_moved(const store::FileOutcome& outcome) {
  if (outcome.status == store::FileStatus::moved) emit moved(told(outcome));
}

bool Document::apply(const build::Edit& edit) {
  if (!file_) return false;
  if (!edit.wrong.empty()) { // "nothing differs" is no news; what cannot be is
    emit refused(sheets::sentence(edit.wrong));
    return false;
  }
  if (edit.empty()) return false;
  // What hangs on a changed size or face goes into the same edit.
  const auto outcome = file_->apply(solid::followed(build(), edit, build::utc_now()));
  if (!outcome.ok()) {
    emit refused(told(outcome));
    return false;
  }
  if (!of_the_bench_alone(edit)) ++plan_revision_;
  mend_choice();
  emit changed();
  emit done(qt(edit.label));
  tell_moved(outcome);
  return true;
}

bool Document::apply(const build::Added& added) {
  return apply(added.ok() ? added.edit : build::cannot(added.wrong));
}

void Document::undo() {
  const auto label = undo_label();
  if (!label) return;
  const auto outcome = file_->undo();
  if (!outcome.ok()) emit refused(told(outcome));
  ++plan_revision_;
  mend_choice();
  emit changed();
  if (outcome.ok()) emit done("Undone: " + *label);
  tell_moved(outcome);
}

void Document::redo() {
  const auto label = redo_label();
  if (!label) return;
  const auto outcome = file_->redo();
  if (!outcome.ok()) emit refused(told(outcome));
  ++plan_revision_;
  mend_choice();
  emit changed();
  if (outcome.ok()) emit done("Redone: " + *label);
  tell_moved(outcome);
}

std::optional<QString> Document::undo_label() const {
  if (!file_) return std::nullopt;
  const auto label = file_->undo_label();
  return label ? std::optional(in_menu(*label)) : std::nullopt;
}

std::optional<QString> Document::redo_label() const {
  if (!file_) return std::nullopt;
  const auto label = file_->redo_label();
  return label ? std::optional(in_menu(*label)) : std::nullopt;
}

std::vector<store::LogLine> Document::log(int most) const {
  return file_ ? file_->log(most) : std::vector<store::LogLine>{};
}

QString Document::is_own_file(const QString& path) const {
  // Looked at, not opened: closing it would let go of the database's hold on it.
  std::error_code error;
  if (!file_ || !std::filesystem::equivalent(path.toStdString(), file_->path(), error)) return {};
  return path + " is the build itself; choose another name";
}

void Document::choose(build::Id part, build::Id piece) {
  if (part == part_ && piece == piece_) return;
  part_ = part;
  piece_ = piece;
  mend_choice();
  emit changed();
}

/// Whatever was undone or removed, a part and one of its pieces stay chosen while there are any.
void Document::mend_choice() {
  const auto& b = build();
  if (!b.find<build::Part>(part_)) {
    const auto parts = b.parts();
    part_ = parts.empty() ? 0 : parts.front().first;
    piece_ = 0;
  }
  const auto* piece = b.find<build::Piece>(piece_);
  if (piece == nullptr || piece->part != part_) {
    const auto pieces = b.pieces_of(part_);
    piece_ = pieces.empty() ? 0 : pieces.front().first;
  }
}

} // namespace datrin::app
