#include "walker.h"

#include <dirent.h>
#include <fcntl.h>
#include <limits.h>
#include <stdlib.h>
#include <unistd.h>

#include <cerrno>
#include <system_error>
#include <thread>

namespace syndexa {

namespace {

constexpr size_t kRoom = 256 * 1024;
/** Files of one folder that one thread reads; what is more is left to whoever is free. */
constexpr size_t kBatch = 128;

bool EndsWith(const std::string& text, const std::string& end) {
  return text.size() >= end.size() && text.compare(text.size() - end.size(), end.size(), end) == 0;
}

bool StartsWith(const std::string& text, const std::string& start) {
  return text.compare(0, start.size(), start) == 0;
}

std::string ExtensionOf(const std::string& name) {
  const size_t dot = name.rfind('.');
  return dot == std::string::npos ? "" : name.substr(dot);
}

/** Whether a name is UTF-8; one that is not cannot be told apart from others once it is text. */
bool IsText(const std::string& name) {
  for (size_t at = 0; at < name.size();) {
    const auto lead = static_cast<uint8_t>(name[at]);
    const size_t more = lead < 0x80                   ? 0
                        : lead >= 0xc2 && lead < 0xe0 ? 1
                        : lead >= 0xe0 && lead < 0xf0 ? 2
                                                      : 3;
    if (lead >= 0x80 && (lead < 0xc2 || lead > 0xf4)) return false;
    uint32_t point = more == 0 ? lead : lead & (0x3f >> more);
    for (size_t next = 1; next <= more; next++) {
      const uint8_t byte = at + next < name.size() ? static_cast<uint8_t>(name[at + next]) : 0;
      if ((byte & 0xc0) != 0x80) return false;
      point = point << 6 | (byte & 0x3f);
    }
    if ((more == 2 && (point < 0x800 || (point >= 0xd800 && point < 0xe000))) ||
        (more == 3 && (point < 0x10000 || point > 0x10ffff)))
      return false;
    at += more + 1;
  }
  return true;
}

/** A file or folder that is closed when it goes out of use. */
class Handle {
 public:
  explicit Handle(int number) : number_(number) {}
  Handle(const Handle&) = delete;
  Handle& operator=(const Handle&) = delete;
  ~Handle() {
    if (number_ >= 0) close(number_);
  }
  int number() const { return number_; }
  explicit operator bool() const { return number_ >= 0; }

 private:
  int number_;
};

/** Opens a folder of a tree. The root may be reached through a link; below it no link is followed. */
int OpenFolder(const Plan& plan, const std::string& folder) {
  const int no_link = folder.empty() ? 0 : O_NOFOLLOW;
  return open((plan.base + "/" + folder).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC | no_link);
}

int OpenFile(int at, const std::string& name, bool follow) {
  // A pipe that took the file's place must not make us wait.
  const int flags = O_RDONLY | O_CLOEXEC | O_NONBLOCK | (follow ? 0 : O_NOFOLLOW);
  return openat(at, name.c_str(), flags);
}

}  // namespace

struct Walker::Entry {
  std::string name;
  unsigned char kind;
};

struct Walker::Desk {
  Found& found;
  std::vector<char> room = std::vector<char>(kRoom);

  void LeaveOut(const std::string& path, Reason reason, double detail = 0) {
    found.left_out.push_back({path, reason, detail});
  }
};

void Found::Add(Found&& other) {
  const auto move_all = [](auto& to, auto& from) {
    to.insert(to.end(), std::make_move_iterator(from.begin()), std::make_move_iterator(from.end()));
  };
  move_all(files, other.files);
  move_all(folders, other.folders);
  move_all(left_out, other.left_out);
  seen += other.seen;
  read += other.read;
  dull += other.dull;
}

Walker::Walker(const Plan& plan)
    : plan_(plan), needles_(plan.needles), known_(plan.known.data(), plan.known.size()) {
  // A name that ends as a rule says has the rule's own extension, so that few rules are left to try.
  for (const Rule& rule : plan.rules) {
    const std::string& end = rule.has_suffix ? rule.suffix : rule.name;
    if (rule.has_suffix && end.find('.') == std::string::npos) any_extension_.push_back(&rule);
    else by_extension_[ExtensionOf(end)].push_back(&rule);
  }
  for (auto& [_, rules] : by_extension_)
    rules.insert(rules.end(), any_extension_.begin(), any_extension_.end());
}

std::atomic<size_t> Walker::abandoned_{0};

Found Walker::Run() {
  waiting_.push_back({});
  std::vector<Found> found(std::max<size_t>(plan_.threads, 1));
  std::vector<std::thread> helpers;
  for (size_t helper = 1; helper < found.size(); helper++) {
    try {
      helpers.emplace_back([this, &mine = found[helper]] { Work(mine); });
    } catch (const std::system_error&) {
      break;  // With no more threads to be had, those that there are do it all.
    }
  }
  Work(found[0]);
  for (auto& helper : helpers) helper.join();
  for (size_t helper = 1; helper < found.size(); helper++) found[0].Add(std::move(found[helper]));
  return std::move(found[0]);
}

void Walker::Work(Found& found) {
  Desk desk{found};
  for (Task task; Next(task); Done()) {
    if (task.files.empty()) {
      List(task, desk);
      continue;
    }
    const Handle folder(OpenFolder(plan_, task.folder));
    ReadAll(task.folder, folder.number(), task.files, desk);
  }
}

bool Walker::Next(Task& task) {
  std::unique_lock<std::mutex> lock(mutex_);
  ready_.wait(lock, [this] { return !waiting_.empty() || working_ == 0; });
  if (waiting_.empty()) return false;
  if (IsAbandoned()) {
    waiting_.clear();
    ready_.notify_all();
    return false;
  }
  task = std::move(waiting_.back());
  waiting_.pop_back();
  working_++;
  return true;
}

void Walker::Done() {
  const std::lock_guard<std::mutex> lock(mutex_);
  if (--working_ == 0 && waiting_.empty()) ready_.notify_all();
}

void Walker::Push(Task&& task) {
  {
    const std::lock_guard<std::mutex> lock(mutex_);
    waiting_.push_back(std::move(task));
  }
  ready_.notify_one();
}

void Walker::List(const Task& task, Desk& desk) {
  const std::string& folder = task.folder;
  const int at = OpenFolder(plan_, folder);
  DIR* listing = at < 0 ? nullptr : fdopendir(at);
  if (!listing) {
    if (!folder.empty()) desk.LeaveOut(folder, Reason::kSystem, errno);
    if (at >= 0) close(at);
    return;
  }
  std::vector<Entry> entries;
  while (const dirent* each = readdir(listing)) {
    const std::string name = each->d_name;
    if (name == "." || name == "..") continue;
    unsigned char kind = each->d_type;
    struct stat stats;
    if (kind == DT_UNKNOWN && fstatat(at, each->d_name, &stats, AT_SYMLINK_NOFOLLOW) == 0)
      kind = S_ISDIR(stats.st_mode)   ? DT_DIR
             : S_ISREG(stats.st_mode) ? DT_REG
             : S_ISLNK(stats.st_mode) ? DT_LNK
                                      : 0;
    entries.push_back({name, kind});
  }
  const std::string parent = folder.substr(folder.rfind('/') + 1);
  std::vector<Wanted> wanted;
  for (const auto& [name, kind] : entries) {
    if (kind == DT_DIR) {
      if (IsSkipped(name, entries)) continue;
      std::string path = folder.empty() ? name : folder + "/" + name;
      const std::string rooted = "/" + path;
      for (const auto& end : plan_.ends)
        if (EndsWith(rooted, end)) {
          desk.found.folders.push_back(path);
          break;
        }
      if (!IsText(name)) desk.LeaveOut(path, Reason::kSystem, ENOENT);
      else if (task.depth >= plan_.max_depth) desk.LeaveOut(path, Reason::kTooDeep);
      else Push({std::move(path), task.depth + 1, {}});
      continue;
    }
    desk.found.seen++;
    const Match match = MatchOf(name, parent);
    if (match == Match::kNone || (kind != DT_REG && kind != DT_LNK)) continue;
    wanted.push_back({name, match == Match::kNeedle, kind == DT_LNK});
    if (wanted.size() < kBatch) continue;
    Push({folder, task.depth, std::move(wanted)});
    wanted.clear();
  }
  ReadAll(folder, at, wanted, desk);
  closedir(listing);
}

void Walker::ReadAll(const std::string& folder, int at, const std::vector<Wanted>& files, Desk& desk) {
  for (const auto& wanted : files) {
    if (IsAbandoned()) return;
    const std::string path = folder.empty() ? wanted.name : folder + "/" + wanted.name;
    if (!wanted.link || LeadsInside(path, desk)) Read(path, at, wanted, desk);
  }
}

void Walker::Read(const std::string& path, int at, const Wanted& wanted, Desk& desk) {
  if (!IsText(wanted.name)) return desk.LeaveOut(path, Reason::kSystem, ENOENT);
  struct stat stats;
  Times times;
  if (plan_.keeps_known) {
    if (fstatat(at, wanted.name.c_str(), &stats, 0) != 0) return desk.LeaveOut(path, Reason::kSystem, errno);
    times = Times::Of(stats);
    if (const auto* seen = known_.Recall(path, times)) {
      if (seen->hash) desk.found.files.push_back({path, times, "", std::string(seen->hash, kHashBytes)});
      else KnownList::AddDull(desk.found.dull, path, times);
      return;
    }
  }
  const Handle file(OpenFile(at, wanted.name, wanted.link));
  if (!file) return desk.LeaveOut(path, Reason::kSystem, errno);
  desk.found.read++;
  ssize_t got = read(file.number(), desk.room.data(), desk.room.size());
  if (got < 0) return desk.LeaveOut(path, Reason::kSystem, errno);
  auto length = static_cast<size_t>(got);
  if (length == desk.room.size()) {
    if (fstat(file.number(), &stats) != 0) return desk.LeaveOut(path, Reason::kSystem, errno);
    const auto size = static_cast<size_t>(stats.st_size);
    if (size > plan_.max_file_bytes) return desk.LeaveOut(path, Reason::kTooLarge, static_cast<double>(size));
    if (size >= desk.room.size()) desk.room.resize(size + 64 * 1024);
    while (length < desk.room.size()) {
      got = read(file.number(), desk.room.data() + length, desk.room.size() - length);
      if (got < 0) return desk.LeaveOut(path, Reason::kSystem, errno);
      if (got == 0) break;
      length += static_cast<size_t>(got);
    }
  }
  Keep(path, wanted, times, length, desk);
}

void Walker::Keep(const std::string& path, const Wanted& wanted, const Times& times, size_t length,
                  Desk& desk) {
  const char* bytes = desk.room.data();
  if (!wanted.needle || needles_.StandIn(bytes, length))
    desk.found.files.push_back({path, times, std::string(bytes, length), ""});
  else if (plan_.keeps_known && std::max(times.changed, times.entered) <= plan_.too_fresh)
    KnownList::AddDull(desk.found.dull, path, times);
}

bool Walker::IsSkipped(const std::string& name, const std::vector<Entry>& neighbours) const {
  if (plan_.skip_folders.count(name)) return true;
  const auto ends = plan_.skip_beside.find(name);
  if (ends == plan_.skip_beside.end()) return false;
  for (const auto& neighbour : neighbours)
    for (const auto& end : ends->second)
      if (EndsWith(neighbour.name, end)) return true;
  return false;
}

const std::vector<const Rule*>& Walker::RulesNear(const std::string& extension) const {
  const auto found = by_extension_.find(extension);
  return found == by_extension_.end() ? any_extension_ : found->second;
}

Walker::Match Walker::MatchOf(const std::string& name, const std::string& parent) const {
  if (plan_.names.count(name)) return Match::kAlways;
  Match found = Match::kNone;
  for (const Rule* rule : RulesNear(ExtensionOf(name))) {
    if (rule->has_suffix && !EndsWith(name, rule->suffix)) continue;
    if (rule->has_name && name != rule->name) continue;
    if (rule->has_parent && parent != rule->parent && !StartsWith(parent, rule->parent + "-")) continue;
    if (!rule->needle) return Match::kAlways;
    found = Match::kNeedle;
  }
  return found;
}

bool Walker::LeadsInside(const std::string& path, Desk& desk) const {
  struct stat stats;
  char* target = realpath((plan_.base + "/" + path).c_str(), nullptr);
  if (!target || stat(target, &stats) != 0) {
    free(target);
    desk.LeaveOut(path, Reason::kLeadsNowhere);
    return false;
  }
  const bool inside = StartsWith(target, plan_.base + "/");
  free(target);
  if (!inside) desk.LeaveOut(path, Reason::kLeadsOut);
  return inside && S_ISREG(stats.st_mode);
}

}  // namespace syndexa
