#ifndef SYNDEXA_WALKER_H
#define SYNDEXA_WALKER_H

#include <atomic>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <string>
#include <unordered_map>
#include <unordered_set>
#include <vector>

#include "known.h"
#include "needles.h"

namespace syndexa {

/** By its name, and its folder's, a file is wanted: whatever it holds, or when it holds a needle. */
struct Rule {
  std::string name, suffix, parent;
  bool has_name = false, has_suffix = false, has_parent = false, needle = false;
};

/** Which files of a tree are wanted; the fields of a collect plan, and where to look. */
struct Plan {
  std::string base;
  /** Names that are wanted whatever the files hold. */
  std::unordered_set<std::string> names;
  std::vector<Rule> rules;
  std::vector<std::string> needles;
  std::unordered_set<std::string> skip_folders;
  /** Of a folder's name: what the names end in beside which it is passed over. */
  std::unordered_map<std::string, std::vector<std::string>> skip_beside;
  /** Folders whose path ends so are told. */
  std::vector<std::string> ends;
  size_t max_file_bytes = 0;
  size_t max_depth = 0;
  size_t threads = 1;
  /** The list of files that are known; it is kept up only when `keeps_known`. */
  std::string known;
  bool keeps_known = false;
  /** Files that were changed later (milliseconds since 1970) may change again without their times telling. */
  double too_fresh = 0;
  /** How often walks had been let go of when this one was asked for. */
  size_t abandoned_before = 0;
};

struct FoundFile {
  std::string path;
  Times times;
  /** The bytes; nothing when the file is as it was, with its hash instead. */
  std::string bytes;
  std::string known_hash;
};

/** Why something was not read: an error of the system, or one of these. */
enum class Reason { kSystem, kTooLarge, kTooDeep, kLeadsOut, kLeadsNowhere };

struct LeftOut {
  std::string path;
  Reason reason;
  /** The error's number, or the file's bytes. */
  double detail;
};

struct Found {
  std::vector<FoundFile> files;
  std::vector<std::string> folders;
  std::vector<LeftOut> left_out;
  /** How many entries that are no folders were seen. */
  size_t seen = 0;
  /** How many files were read. */
  size_t read = 0;
  /** Files that do not matter, as a list of known files. */
  std::string dull;

  void Add(Found&& other);
};

/** Walks a tree with several threads, each taking the folder or the files that come next. */
class Walker {
 public:
  explicit Walker(const Plan& plan);

  /** Walks; may be called once. */
  Found Run();

  /** Lets go of all walks that are under way: what they found so far is not whole. */
  static void AbandonAll() { abandoned_++; }
  /** How often walks were let go of so far; a plan says how often that was when it was made. */
  static size_t abandoned() { return abandoned_; }
  /** Whether this walk was let go of. */
  bool IsAbandoned() const { return abandoned_ != plan_.abandoned_before; }

 private:
  enum class Match { kNone, kNeedle, kAlways };
  struct Wanted {
    std::string name;
    bool needle;
    bool link;
  };
  /** A folder to list, or files of one to read. */
  struct Task {
    std::string folder;
    size_t depth = 0;
    std::vector<Wanted> files;
  };
  struct Entry;
  /** Where a thread reads files into, and what it found. */
  struct Desk;

  void Work(Found& found);
  bool Next(Task& task);
  void Done();
  void Push(Task&& task);
  void List(const Task& task, Desk& desk);
  void ReadAll(const std::string& folder, int at, const std::vector<Wanted>& files, Desk& desk);
  void Read(const std::string& path, int at, const Wanted& wanted, Desk& desk);
  void Keep(const std::string& path, const Wanted& wanted, const Times& times, size_t length, Desk& desk);
  bool IsSkipped(const std::string& name, const std::vector<Entry>& neighbours) const;
  Match MatchOf(const std::string& name, const std::string& parent) const;
  const std::vector<const Rule*>& RulesNear(const std::string& extension) const;
  /** Whether a symbolic link leads to a file inside the tree; else it may be said why not. */
  bool LeadsInside(const std::string& path, Desk& desk) const;

  const Plan& plan_;
  const Needles needles_;
  const KnownList known_;
  /** Rules by the extension that a file they fit has; those that fit any extension are in each. */
  std::unordered_map<std::string, std::vector<const Rule*>> by_extension_;
  std::vector<const Rule*> any_extension_;

  static std::atomic<size_t> abandoned_;

  std::mutex mutex_;
  std::condition_variable ready_;
  std::vector<Task> waiting_;
  size_t working_ = 0;
};

}  // namespace syndexa

#endif
