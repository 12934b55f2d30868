#include "core/transport/exchange_matrix.hpp"

#include <algorithm>

namespace glow::transport {
namespace {

/// The same counts, seen from the patches that were met.
std::vector<std::vector<HitCount>> transposed(const std::vector<std::vector<HitCount>>& counts) {
  std::vector<std::size_t> sizes(counts.size(), 0);
  for (const auto& row : counts)
    for (const HitCount& c : row) ++sizes[std::size_t(c.patch)];
  std::vector<std::vector<HitCount>> result(counts.size());
  for (std::size_t i = 0; i < counts.size(); ++i) result[i].reserve(sizes[i]);
  for (std::size_t i = 0; i < counts.size(); ++i)
    for (const HitCount& c : counts[i]) result[std::size_t(c.patch)].push_back({std::int32_t(i), c.hits});
  return result;
}

/// Adds up two rows of rising patch numbers.
std::vector<HitCount> merged(const std::vector<HitCount>& a, const std::vector<HitCount>& b) {
  std::vector<HitCount> sum;
  sum.reserve(a.size() + b.size());
  std::size_t i = 0, j = 0;
  while (i < a.size() || j < b.size()) {
    if (j == b.size() || (i < a.size() && a[i].patch < b[j].patch)) {
      sum.push_back(a[i++]);
    } else if (i == a.size() || b[j].patch < a[i].patch) {
      sum.push_back(b[j++]);
    } else {
      sum.push_back({a[i].patch, a[i].hits + b[j].hits});
      ++i;
      ++j;
    }
  }
  return sum;
}

}  // namespace

ExchangeMatrix::ExchangeMatrix(const std::vector<std::vector<HitCount>>& counts,
                               const Eigen::VectorXd& rays_per_m2)
    : row_begin_(counts.size() + 1, 0), scale_(Eigen::VectorXd::Ones(Eigen::Index(counts.size()))) {
  const auto met_by = transposed(counts);
  std::vector<std::vector<HitCount>> rows(counts.size());
  parallel_for(counts.size(), {}, "", [&](std::size_t i) { rows[i] = merged(counts[i], met_by[i]); });
  for (std::size_t i = 0; i < rows.size(); ++i) row_begin_[i + 1] = row_begin_[i] + rows[i].size();
  columns_.resize(row_begin_.back());
  values_.resize(row_begin_.back());
  parallel_for(rows.size(), {}, "", [&](std::size_t i) {
    std::size_t k = row_begin_[i];
    for (const HitCount& c : rows[i]) {
      columns_[k] = c.patch;
      values_[k++] = static_cast<float>(c.hits / (rays_per_m2[Eigen::Index(i)] + rays_per_m2[c.patch]));
    }
  });
}

Eigen::VectorXd ExchangeMatrix::times(const Eigen::VectorXd& x) const {
  const Eigen::VectorXd scaled = scale_.cwiseProduct(x);
  Eigen::VectorXd result(scale_.size());
  constexpr std::size_t kRowsTogether = 32;  // a row is too little work for a task of its own
  const std::size_t rows = std::size_t(scale_.size());
  const auto row_sum = [&](std::size_t i) {
    // Four sums hide the latency of adding; their order is fixed.
    double sums[4] = {0, 0, 0, 0};
    std::size_t k = row_begin_[i];
    const std::size_t end = row_begin_[i + 1];
    for (; k + 4 <= end; k += 4)
      for (std::size_t l = 0; l < 4; ++l) sums[l] += double(values_[k + l]) * scaled[columns_[k + l]];
    for (; k < end; ++k) sums[0] += double(values_[k]) * scaled[columns_[k]];
    return scale_[Eigen::Index(i)] * ((sums[0] + sums[1]) + (sums[2] + sums[3]));
  };
  parallel_for((rows + kRowsTogether - 1) / kRowsTogether, {}, "", [&](std::size_t block) {
    for (std::size_t i = block * kRowsTogether; i < std::min(rows, (block + 1) * kRowsTogether); ++i)
      result[Eigen::Index(i)] = row_sum(i);
  });
  return result;
}

double ExchangeMatrix::area(Eigen::Index i, Eigen::Index j) const {
  const auto begin = columns_.begin() + static_cast<std::ptrdiff_t>(row_begin_[std::size_t(i)]);
  const auto end = columns_.begin() + static_cast<std::ptrdiff_t>(row_begin_[std::size_t(i) + 1]);
  const auto found = std::lower_bound(begin, end, j);
  if (found == end || *found != j) return 0;
  return double(values_[std::size_t(found - columns_.begin())]) * (scale_[i] * scale_[j]);
}

}  // namespace glow::transport
