#ifndef SYNDEXA_KNOWN_H
#define SYNDEXA_KNOWN_H

#include <sys/stat.h>

#include <cstdint>
#include <cstring>
#include <string>
#include <string_view>
#include <unordered_map>

namespace syndexa {

/** What tells that a file is as it was: bytes, time of change and time of any change to its entry
 * (milliseconds), number. */
struct Times {
  double size = 0;
  double changed = 0;
  double entered = 0;
  double number = 0;

  static Times Of(const struct stat& stats) {
#ifdef __APPLE__
    const auto &changed = stats.st_mtimespec, &entered = stats.st_ctimespec;
#else
    const auto &changed = stats.st_mtim, &entered = stats.st_ctim;
#endif
    const auto milliseconds = [](const timespec& time) {
      return static_cast<double>(time.tv_sec) * 1e3 + static_cast<double>(time.tv_nsec) / 1e6;
    };
    return {static_cast<double>(stats.st_size), milliseconds(changed), milliseconds(entered),
            static_cast<double>(stats.st_ino)};
  }

  bool operator==(const Times& other) const {
    return size == other.size && changed == other.changed && entered == other.entered &&
           number == other.number;
  }
};

constexpr size_t kHashBytes = 32;

/**
 * The list that `known-files.ts` keeps: for each file the length of its path (two bytes), the path, its times
 * (four doubles), and either 0 when it did not matter, or 1 and its hash. All numbers lie as the machine has
 * them.
 */
class KnownList {
 public:
  struct Entry {
    Times times;
    /** Nothing when the file did not matter. */
    const char* hash;
  };

  /** Reads a list, which must outlive this; one that is damaged counts as empty. */
  KnownList(const char* bytes, size_t length) {
    const char* end = bytes + length;
    while (bytes < end)
      if (!ReadEntry(bytes, end)) {
        entries_.clear();
        return;
      }
  }

  /** What a file was; nothing when it was not seen, or has changed since. */
  const Entry* Recall(const std::string& path, const Times& times) const {
    const auto found = entries_.find(path);
    return found != entries_.end() && found->second.times == times ? &found->second : nullptr;
  }

  /** Adds a file that does not matter to a list. */
  static void AddDull(std::string& list, const std::string& path, const Times& times) {
    if (path.size() > UINT16_MAX) return;
    const auto length = static_cast<uint16_t>(path.size());
    list.append(reinterpret_cast<const char*>(&length), sizeof length).append(path);
    list.append(reinterpret_cast<const char*>(&times), sizeof times).push_back('\0');
  }

 private:
  static bool Take(const char*& from, const char* end, void* to, size_t length) {
    if (static_cast<size_t>(end - from) < length) return false;
    std::memcpy(to, from, length);
    from += length;
    return true;
  }

  bool ReadEntry(const char*& bytes, const char* end) {
    uint16_t path_length;
    if (!Take(bytes, end, &path_length, sizeof path_length)) return false;
    if (static_cast<size_t>(end - bytes) < path_length) return false;
    const std::string_view path(bytes, path_length);
    bytes += path_length;
    Entry entry{};
    uint8_t matters;
    if (!Take(bytes, end, &entry.times, sizeof entry.times) || !Take(bytes, end, &matters, 1)) return false;
    if (matters == 1) {
      if (static_cast<size_t>(end - bytes) < kHashBytes) return false;
      entry.hash = bytes;
      bytes += kHashBytes;
    }
    entries_[path] = entry;
    return true;
  }

  std::unordered_map<std::string_view, Entry> entries_;
};

}  // namespace syndexa

#endif
