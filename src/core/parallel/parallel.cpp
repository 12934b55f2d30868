#include "core/parallel/parallel.hpp"

#include <pmmintrin.h>
#include <tbb/global_control.h>
#include <tbb/parallel_for.h>
#include <xmmintrin.h>

#include <algorithm>
#include <thread>

namespace glow {
namespace {

/// Embree asks for this mode; set around the work only, so that callers keep theirs.
class FlushDenormals {
 public:
  FlushDenormals() : before_(_mm_getcsr()) {
    _MM_SET_FLUSH_ZERO_MODE(_MM_FLUSH_ZERO_ON);
    _MM_SET_DENORMALS_ZERO_MODE(_MM_DENORMALS_ZERO_ON);
  }
  ~FlushDenormals() { _mm_setcsr(before_); }
  FlushDenormals(const FlushDenormals&) = delete;
  FlushDenormals& operator=(const FlushDenormals&) = delete;

 private:
  unsigned before_;
};

}  // namespace

void parallel_for(std::size_t count, const Watch& watch, const char* stage,
                  const std::function<void(std::size_t)>& body) {
  if (count == 0) return;
  std::atomic<std::size_t> done{0};
  const std::size_t grain = std::clamp<std::size_t>(count / 64, 1, 64);
  tbb::parallel_for(tbb::blocked_range<std::size_t>(0, count, grain), [&](const auto& range) {
    const FlushDenormals mode;
    watch.stop_if_cancelled();
    for (std::size_t i = range.begin(); i != range.end(); ++i) body(i);
    const std::size_t now = done += range.size();
    watch.report(stage, double(now) / double(count));
  });
  watch.stop_if_cancelled();
}

int thread_count() {
  const std::size_t allowed = tbb::global_control::active_value(tbb::global_control::max_allowed_parallelism);
  return static_cast<int>(std::min<std::size_t>(allowed, std::max(1u, std::thread::hardware_concurrency())));
}

struct ThreadLimit::Control {
  explicit Control(std::size_t n) : control(tbb::global_control::max_allowed_parallelism, n) {}
  tbb::global_control control;
};

ThreadLimit::ThreadLimit(int threads)
    : control_(threads > 0 ? new Control(static_cast<std::size_t>(threads)) : nullptr) {}

ThreadLimit::~ThreadLimit() {
  delete control_;
}

}  // namespace glow
