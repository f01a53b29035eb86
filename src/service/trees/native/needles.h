#ifndef SYNDEXA_NEEDLES_H
#define SYNDEXA_NEEDLES_H

#include <algorithm>
#include <cstdint>
#include <cstring>
#include <string>
#include <vector>

#if defined(__x86_64__) && defined(__GNUC__)
#include <tmmintrin.h>
#define SYNDEXA_BY_SIXTEEN 1
#endif

namespace syndexa {

/**
 * Looks for many texts at once in the bytes of a file. Of every text the three neighbouring bytes are taken
 * that are rarest; each text lies in one of eight buckets, and six tables of sixteen bytes tell by the halves
 * of three bytes which buckets they may belong to. A processor that looks sixteen bytes up at once (SSSE3)
 * does so for sixteen places at once. What passes is compared. It finds what `find-needles.ts` finds, which
 * serves where this is not built; a test holds the two together.
 */
class Needles {
 public:
  explicit Needles(const std::vector<std::string>& texts) {
    for (const auto& text : texts) {
      if (text.empty()) continue;
      if (text.size() < kWindow) short_.push_back(text);
      else needles_.push_back({text, RarestWindow(text), 0});
    }
    // Windows that are alike share a bucket, so that the tables let little else pass.
    std::sort(needles_.begin(), needles_.end(), [](const Needle& a, const Needle& b) {
      return a.text.compare(a.from, kWindow, b.text, b.from, kWindow) < 0;
    });
    for (size_t at = 0; at < needles_.size(); at++) {
      Needle& needle = needles_[at];
      needle.bucket = static_cast<uint8_t>(1 << at * kBuckets / needles_.size());
      for (size_t place = 0; place < kWindow; place++) {
        const auto byte = static_cast<uint8_t>(needle.text[needle.from + place]);
        low_[place][byte & 15] |= needle.bucket;
        high_[place][byte >> 4] |= needle.bucket;
      }
    }
#ifdef SYNDEXA_BY_SIXTEEN
    by_sixteen_ = __builtin_cpu_supports("ssse3");
#endif
  }

  /** Whether one of the texts stands in the bytes. */
  bool StandIn(const char* bytes, size_t length) const {
    for (const auto& text : short_)
      if (std::search(bytes, bytes + length, text.begin(), text.end()) != bytes + length) return true;
    if (needles_.empty() || length < kWindow) return false;
    const Haystack haystack{bytes, bytes + length};
    const char* at = bytes;
#ifdef SYNDEXA_BY_SIXTEEN
    if (by_sixteen_ && StandInBySixteen(haystack, at)) return true;
#endif
    for (; at + kWindow <= haystack.end; at++) {
      const uint8_t buckets = BucketsAt(at);
      if (buckets && Matches(haystack, at, buckets)) return true;
    }
    return false;
  }

 private:
  static constexpr size_t kWindow = 3;
  static constexpr size_t kBuckets = 8;

  struct Haystack {
    const char* begin;
    const char* end;
  };

  struct Needle {
    std::string text;
    /** Where in it the window begins by which it is found. */
    size_t from;
    uint8_t bucket;
  };

  static size_t RarestWindow(const std::string& text) {
    // The letters of code and prose, the most common first; what is not among them is rarer still.
    static const std::string common = " etaoinsrlcdpmhugfybvwkxjzq";
    const auto rarity = [&](size_t from) {
      size_t sum = 0;
      for (size_t place = 0; place < kWindow; place++)
        sum += std::min(common.find(text[from + place]), common.size());
      return sum;
    };
    size_t rarest = 0;
    for (size_t from = 1; from + kWindow <= text.size(); from++)
      if (rarity(from) > rarity(rarest)) rarest = from;
    return rarest;
  }

  uint8_t BucketsAt(const char* at) const {
    uint8_t buckets = 0xff;
    for (size_t place = 0; place < kWindow; place++) {
      const auto byte = static_cast<uint8_t>(at[place]);
      buckets &= low_[place][byte & 15] & high_[place][byte >> 4];
    }
    return buckets;
  }

  bool Matches(const Haystack& haystack, const char* window, uint8_t buckets) const {
    for (const auto& [text, from, bucket] : needles_) {
      if (!(bucket & buckets) || static_cast<size_t>(window - haystack.begin) < from) continue;
      const char* start = window - from;
      const bool fits = static_cast<size_t>(haystack.end - start) >= text.size();
      if (fits && std::memcmp(start, text.data(), text.size()) == 0) return true;
    }
    return false;
  }

#ifdef SYNDEXA_BY_SIXTEEN
  /** Looks as far as sixteen places at once can be looked at, and moves `at` to where that ends. */
  __attribute__((target("ssse3"))) bool StandInBySixteen(const Haystack& haystack, const char*& at) const {
    const __m128i half = _mm_set1_epi8(15), none = _mm_setzero_si128();
    __m128i low[kWindow], high[kWindow];
    for (size_t place = 0; place < kWindow; place++) {
      low[place] = _mm_load_si128(reinterpret_cast<const __m128i*>(low_[place]));
      high[place] = _mm_load_si128(reinterpret_cast<const __m128i*>(high_[place]));
    }
    for (; static_cast<size_t>(haystack.end - at) >= 16 + kWindow - 1; at += 16) {
      __m128i buckets = _mm_set1_epi8(-1);
      for (size_t place = 0; place < kWindow; place++) {
        const __m128i bytes = _mm_loadu_si128(reinterpret_cast<const __m128i*>(at + place));
        const __m128i upper = _mm_and_si128(_mm_srli_epi16(bytes, 4), half);
        buckets =
            _mm_and_si128(buckets, _mm_and_si128(_mm_shuffle_epi8(low[place], _mm_and_si128(bytes, half)),
                                                 _mm_shuffle_epi8(high[place], upper)));
      }
      unsigned passed = 0xffff ^ static_cast<unsigned>(_mm_movemask_epi8(_mm_cmpeq_epi8(buckets, none)));
      for (; passed; passed &= passed - 1) {
        const char* window = at + __builtin_ctz(passed);
        if (Matches(haystack, window, BucketsAt(window))) return true;
      }
    }
    return false;
  }

  bool by_sixteen_ = false;
#endif
  alignas(16) uint8_t low_[kWindow][16] = {};
  alignas(16) uint8_t high_[kWindow][16] = {};
  std::vector<Needle> needles_;
  /** Texts shorter than a window. */
  std::vector<std::string> short_;
};

}  // namespace syndexa

#endif
