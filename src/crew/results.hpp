#pragma once

#include <cstdio>
#include <exception>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <stdexcept>
#include <string>
#include <utility>
#include <vector>

namespace glow::crew {

/// Results that wait for those before them.
class Spool {
 public:
  Spool() : file_(std::tmpfile(), &std::fclose) {
    if (!file_) throw std::runtime_error("no temporary file can be made");
  }

  void put(std::size_t job, const std::string& bytes) {
    std::fseek(file_.get(), 0, SEEK_END);
    const long at = std::ftell(file_.get());
    if (at < 0 || std::fwrite(bytes.data(), 1, bytes.size(), file_.get()) != bytes.size())
      throw std::runtime_error("the temporary file for results cannot be written");
    places_[job] = {at, bytes.size()};
  }
  std::optional<std::string> take(std::size_t job) {
    const auto found = places_.find(job);
    if (found == places_.end()) return std::nullopt;
    std::string bytes(found->second.second, '\0');
    std::fseek(file_.get(), found->second.first, SEEK_SET);
    if (std::fread(bytes.data(), 1, bytes.size(), file_.get()) != bytes.size())
      throw std::runtime_error("the temporary file for results cannot be read");
    places_.erase(found);
    return bytes;
  }

 private:
  std::unique_ptr<FILE, int (*)(FILE*)> file_;
  std::map<std::size_t, std::pair<long, std::size_t>> places_;
};

/// What threads of this process have done.
struct Done {
  std::size_t job = 0;
  std::string result;
  std::exception_ptr failure;
};

class Outbox {
 public:
  void put(Done done) {
    const std::lock_guard<std::mutex> lock(mutex_);
    all_.push_back(std::move(done));
  }
  std::vector<Done> take() {
    const std::lock_guard<std::mutex> lock(mutex_);
    return std::exchange(all_, {});
  }

 private:
  std::mutex mutex_;
  std::vector<Done> all_;
};

inline Done done_by(std::size_t job, const std::function<std::string()>& work) {
  Done done;
  done.job = job;
  try {
    done.result = work();
  } catch (...) {
    done.failure = std::current_exception();
  }
  return done;
}

}  // namespace glow::crew
