#include "core/transport/exchange/exchange_matrix.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/parallel/side_by_side.hpp"

namespace glow::transport {
namespace {

constexpr std::size_t kParts = 8;          // of a product
constexpr Eigen::Index kColumns = 4;       // of the matrix, taken together
constexpr std::size_t kRowsTogether = 32;  // a row is too little work for a task of its own

/// Four columns of a symmetric matrix from column i on, down to the diagonal: each entry counts for its row
/// and for its column.
void add_columns(const Eigen::MatrixXf& matrix, Eigen::Index i, const Eigen::VectorXf& x,
                 Eigen::VectorXf& sum) {
  const float *a = matrix.col(i).data(), *b = matrix.col(i + 1).data(), *c = matrix.col(i + 2).data(),
              *d = matrix.col(i + 3).data(), *in = x.data();
  const float xa = x[i], xb = x[i + 1], xc = x[i + 2], xd = x[i + 3];
  float* out = sum.data();
  float to_a = 0, to_b = 0, to_c = 0, to_d = 0;
#pragma omp simd reduction(+ : to_a, to_b, to_c, to_d)
  for (Eigen::Index k = 0; k < i; ++k) {
    out[k] += (a[k] * xa + b[k] * xb) + (c[k] * xc + d[k] * xd);
    to_a += a[k] * in[k];
    to_b += b[k] * in[k];
    to_c += c[k] * in[k];
    to_d += d[k] * in[k];
  }
  out[i] += to_a;
  out[i + 1] += to_b;
  out[i + 2] += to_c;
  out[i + 3] += to_d;
  for (Eigen::Index j = i; j < i + kColumns; ++j)
    for (Eigen::Index k = i; k < i + kColumns; ++k) out[j] += matrix(k, j) * in[k];
}

struct HitCount {
  std::int32_t patch;
  std::int32_t hits;
};

template <class Body>
void for_row_blocks(std::size_t rows, const Body& body) {
  parallel_for((rows + kRowsTogether - 1) / kRowsTogether, {}, "", [&](std::size_t block) {
    const std::size_t first = block * kRowsTogether;
    body(first, std::min(rows, first + kRowsTogether));
  });
}

/// How often each patch was met by the rays of one, by rising patch number.
std::vector<HitCount> counted(const TracedHits& hits, std::size_t patch) {
  std::vector<std::int32_t> met(hits.of_patches.begin() + std::ptrdiff_t(hits.patch_begin[patch]),
                                hits.of_patches.begin() + std::ptrdiff_t(hits.patch_begin[patch + 1]));
  std::sort(met.begin(), met.end());
  std::vector<HitCount> counts;
  for (const std::int32_t other : met) {
    if (other < 0) continue;
    if (counts.empty() || counts.back().patch != other) counts.push_back({other, 0});
    ++counts.back().hits;
  }
  return counts;
}

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

ExchangeMatrix::ExchangeMatrix(const TracedHits& hits, const Eigen::VectorXd& rays_per_m2)
    : scale_(Eigen::VectorXd::Ones(rays_per_m2.size())) {
  if (std::size_t(rays_per_m2.size()) <= kMostInFull)
    fill_in_full(hits, rays_per_m2);
  else
    fill_sparse(hits, rays_per_m2);
}

void ExchangeMatrix::fill_in_full(const TracedHits& hits, const Eigen::VectorXd& rays_per_m2) {
  const Eigen::Index n = rays_per_m2.size();
  Eigen::MatrixXf counts(n, n);  // column i: what the rays of patch i met
  for_row_blocks(std::size_t(n), [&](std::size_t begin, std::size_t end) {
    for (std::size_t i = begin; i < end; ++i) {
      float* column = counts.data() + i * std::size_t(n);
      std::fill(column, column + n, 0.0f);
      for (std::uint64_t k = hits.patch_begin[i]; k < hits.patch_begin[i + 1]; ++k)
        if (hits.of_patches[k] >= 0) ++column[hits.of_patches[k]];
    }
  });
  full_.resize(n, n);
  const Eigen::VectorXf density = rays_per_m2.cast<float>();
  for_row_blocks(std::size_t(n), [&](std::size_t begin, std::size_t end) {
    const Eigen::Index first = Eigen::Index(begin), width = Eigen::Index(end - begin);
    const auto sums = counts.middleCols(first, width) + counts.middleRows(first, width).transpose();
    for (Eigen::Index i = 0; i < width; ++i)
      full_.col(first + i) = sums.col(i).array() / (density.array() + density[first + i]);
  });
}

void ExchangeMatrix::fill_sparse(const TracedHits& hits, const Eigen::VectorXd& rays_per_m2) {
  const std::size_t n = std::size_t(rays_per_m2.size());
  std::vector<std::vector<HitCount>> rows(n);
  for_row_blocks(n, [&](std::size_t begin, std::size_t end) {
    for (std::size_t i = begin; i < end; ++i) rows[i] = counted(hits, i);
  });
  const auto met_by = transposed(rows);
  for_row_blocks(n, [&](std::size_t begin, std::size_t end) {
    for (std::size_t i = begin; i < end; ++i) rows[i] = merged(rows[i], met_by[i]);
  });
  row_begin_.assign(n + 1, 0);
  for (std::size_t i = 0; i < n; ++i) row_begin_[i + 1] = row_begin_[i] + rows[i].size();
  columns_.resize(row_begin_.back());
  values_.resize(row_begin_.back());
  for_row_blocks(n, [&](std::size_t begin, std::size_t end) {
    for (std::size_t i = begin, k = row_begin_[begin]; i < end; ++i)
      for (const HitCount& c : rows[i]) {
        columns_[k] = c.patch;
        values_[k++] = static_cast<float>(c.hits / (rays_per_m2[Eigen::Index(i)] + rays_per_m2[c.patch]));
      }
  });
}

/// Reads only what lies above the diagonal, each area for both of its patches: reading is what a product
/// costs. In parts of equal size whose number is fixed, so that sums do not depend on the number of threads.
Eigen::VectorXd ExchangeMatrix::half_times(const Eigen::VectorXf& x) const {
  const Eigen::Index n = x.size();
  const auto begin_of = [n](std::size_t part) {
    if (part == kParts) return n;
    return Eigen::Index(double(n) * std::sqrt(double(part) / kParts)) / kColumns * kColumns;
  };
  std::array<Eigen::VectorXf, kParts> sums;
  parallel_for(kParts, {}, "", [&](std::size_t part) {
    const Eigen::Index end = begin_of(part + 1);
    Eigen::VectorXf& sum = sums[part];
    sum.setZero(end);
    Eigen::Index i = begin_of(part);
    for (; i + kColumns <= end; i += kColumns) add_columns(full_, i, x, sum);
    for (; i < end; ++i) {
      sum[i] += full_.col(i).head(i + 1).dot(x.head(i + 1));
      sum.head(i) += x[i] * full_.col(i).head(i);
    }
  });
  Eigen::VectorXd result = Eigen::VectorXd::Zero(n);
  for (const Eigen::VectorXf& sum : sums) result.head(sum.size()) += sum.cast<double>();
  return result;
}

Eigen::VectorXd ExchangeMatrix::times(const Eigen::VectorXd& x) const {
  const Eigen::VectorXd scaled = scale_.cwiseProduct(x);
  Eigen::VectorXd result(scale_.size());
  if (full_.size() > 0) return scale_.cwiseProduct(half_times(scaled.cast<float>()));
  const auto row_sum = [&](std::size_t i) {
    const std::size_t first = row_begin_[i];
    return scale_[Eigen::Index(i)] * sum_side_by_side(row_begin_[i + 1] - first, [&](std::size_t k) {
             return double(values_[first + k]) * scaled[columns_[first + k]];
           });
  };
  for_row_blocks(std::size_t(scale_.size()), [&](std::size_t begin, std::size_t end) {
    for (std::size_t i = begin; i < end; ++i) result[Eigen::Index(i)] = row_sum(i);
  });
  return result;
}

Eigen::MatrixXf ExchangeMatrix::between_groups(const std::vector<int>& group, std::size_t count) const {
  std::vector<std::vector<Eigen::Index>> members(count);
  for (std::size_t i = 0; i < group.size(); ++i) members[std::size_t(group[i])].push_back(Eigen::Index(i));
  const Eigen::Index side = Eigen::Index(count);
  Eigen::MatrixXf areas(side, side);
  parallel_for(count, {}, "", [&](std::size_t g) {
    Eigen::VectorXd column = Eigen::VectorXd::Zero(side);
    for (const Eigen::Index i : members[g]) {
      const auto add = [&](Eigen::Index j, float value) {
        column[group[std::size_t(j)]] += double(value) * scale_[i] * scale_[j];
      };
      if (full_.size() > 0)
        for (Eigen::Index j = 0; j < size(); ++j) add(j, full_(j, i));
      else
        for (std::size_t k = row_begin_[std::size_t(i)]; k < row_begin_[std::size_t(i) + 1]; ++k)
          add(columns_[k], values_[k]);
    }
    areas.col(Eigen::Index(g)) = column.cast<float>();
  });
  return areas;
}

double ExchangeMatrix::area(Eigen::Index i, Eigen::Index j) const {
  double value = 0;
  if (full_.size() > 0) {
    value = full_(i, j);
  } else {
    const auto begin = columns_.begin() + static_cast<std::ptrdiff_t>(row_begin_[std::size_t(i)]);
    const auto end = columns_.begin() + static_cast<std::ptrdiff_t>(row_begin_[std::size_t(i) + 1]);
    const auto found = std::lower_bound(begin, end, j);
    if (found != end && *found == j) value = values_[std::size_t(found - columns_.begin())];
  }
  return value * (scale_[i] * scale_[j]);
}

}  // namespace glow::transport
