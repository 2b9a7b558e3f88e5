#pragma once
// The build on screen: the open file, what of it is chosen, and one signal for "something changed".

#include "app/part_solids.h"
#include "app/silhouettes.h"
#include "build/build.h"
#include "build/edits.h"
#include "store/build_file.h"

#include <QObject>
#include <QString>

#include <functional>
#include <optional>

namespace datrin::app {

/// A piece as the build stood: what is worked out for it holds as long as this stays the same.
struct PieceAsOf {
  build::Id piece = 0;
  std::uint64_t revision = 0;
  bool operator==(const PieceAsOf&) const = default;
};

class Document : public QObject {
  Q_OBJECT
public:
  explicit Document(QObject* parent = nullptr);
  ~Document() override;

  /// Opens a file, or keeps the one that was open; says what was found when all was not well. Whether it was
  /// opened all the same (for reading, or what could be recovered of it) is in `opened`. `wait` does the work
  /// it is given, which may take long, and says what it threw.
  using Wait = std::function<QString(const std::function<void()>& work)>;
  QString open(const QString& path, bool* opened = nullptr, const Wait& wait = {});
  QString create(const QString& path, const QString& name);

  /// Why nothing can be changed; empty when it can.
  QString read_only() const;

  bool is_open() const { return file_.has_value(); }
  QString path() const;
  const build::Build& build() const;
  Unit unit() const { return build().info().unit; }

  /// The solid of a part, as it was last made (app/part_solids.h); null: there is none.
  std::shared_ptr<const PartSolid> solid_of(build::Id part) const {
    return solids_->of(build(), part, part == part_);
  }
  PartSolids& solids() const { return *solids_; }
  Silhouettes& silhouettes() { return silhouettes_; } ///< kept with the file when it is let go of

  /// Carries out an edit: it is on disk when this returns. A refusal is told by `refused` and changes
  /// nothing.
  bool apply(const build::Edit& edit);
  /// The same of what makes a record; why it cannot be made is said.
  bool apply(const build::Added& added);
  void undo();
  void redo();
  std::optional<QString> undo_label() const;
  std::optional<QString> redo_label() const;
  std::vector<store::LogLine> log(int most) const;

  /// Looks whether another program wrote into the file, or took it away: work then goes on in a copy beside
  /// it, which `moved` says, or what is wrong is `refused`. Whether there was nothing new to say.
  bool look_after_file();
  /// Why nothing else may be written at `path`: it is the open build's own file; empty when it may.
  QString is_own_file(const QString& path) const;

  /// Counts every change but those that only say where one stands at the bench: what is worked out of the
  /// build stays as it is while this does.
  std::uint64_t plan_revision() const { return plan_revision_; }
  PieceAsOf piece_now() const { return {piece_, plan_revision_}; }

  build::Id part() const { return part_; }
  build::Id piece() const { return piece_; }
  void choose(build::Id part, build::Id piece);

signals:
  void changed();                  ///< records or choice are not what they were
  void done(const QString& words); ///< an edit was carried out, undone or redone
  void refused(const QString& why);
  void moved(const QString& what); ///< the file is another from now on: `path`

private:
  void take(store::BuildFile file);
  void keep_silhouettes();
  void mend_choice();
  void tell_moved(const store::FileOutcome& outcome);
  bool said_lost_ = false;

  std::optional<store::BuildFile> file_;
  build::Build none_;
  build::Id part_ = 0, piece_ = 0;
  std::uint64_t plan_revision_ = 0;
  Silhouettes silhouettes_;
  PartSolids* solids_; ///< kept by content: no part of what the document says
};

} // namespace datrin::app
