#include "core/sources/remembered_places.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <utility>

#include "core/sources/found_light.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/sources/patch_points.hpp"

namespace glow::sources {
namespace {

constexpr std::size_t kTogether = 64;  // points of one task
constexpr std::size_t kKeptTerms = 2;  // terms of a point that are kept as they are
// Degrees between directions that are told apart where there are more.
constexpr double kNetOfPatches = 1, kNetOfReceivers = 0.25;

std::size_t blocks_of(std::size_t points) {
  return (points + kTogether - 1) / kTogether;
}

/// `task(i)` for every point, in blocks that run side by side.
void for_points(std::size_t points, const Watch& watch, const char* what,
                const std::function<void(std::size_t)>& task) {
  parallel_for(blocks_of(points), watch, what, [&](std::size_t block) {
    for (std::size_t i = block * kTogether; i < std::min(points, (block + 1) * kTogether); ++i) task(i);
  });
}

/// The cell of a net of directions that a term falls into.
std::pair<std::int32_t, std::int32_t> cell_of(const LightTerm& term, double net) {
  const double row = std::floor(double(term.gamma_deg) / net);
  const double around = std::max(std::sin((row + 0.5) * net * kDegree), 1e-3);
  return {std::int32_t(row), std::int32_t(double(term.c_deg) / (net / around))};
}

/// One term for each cell, at their mean direction: right for intensities that are straight lines there.
/// Penumbras leave very many terms, side by side.
std::vector<LightTerm> joined(const std::vector<LightTerm>& terms, double net) {
  std::vector<std::pair<std::pair<std::int32_t, std::int32_t>, LightTerm>> by_cell;
  for (const LightTerm& term : terms) by_cell.emplace_back(cell_of(term, net), term);
  std::stable_sort(by_cell.begin(), by_cell.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<LightTerm> result;
  for (std::size_t i = 0; i < by_cell.size();) {
    const auto cell = by_cell[i].first;
    double weight = 0, c = 0, gamma = 0;
    for (; i < by_cell.size() && by_cell[i].first == cell; ++i) {
      const LightTerm& term = by_cell[i].second;
      weight += double(term.weight);
      c += double(term.weight) * double(term.c_deg);
      gamma += double(term.weight) * double(term.gamma_deg);
    }
    result.push_back({float(c / weight), float(gamma / weight), float(weight)});
  }
  return result;
}

}  // namespace

double RememberedPlaces::Terms::sum(const photometry::IntensityTable& table, std::size_t point) const {
  double sum = 0;
  for (std::uint32_t k = first[point]; k < first[point + 1]; ++k)
    sum += double(terms[k].weight) * table.intensity(double(terms[k].c_deg), double(terms[k].gamma_deg));
  return sum;
}

void RememberedPlaces::Terms::close_point(const LightTerms& tape, double net) {
  std::vector<LightTerm> own;
  for (const LightTerm& term : tape.terms())
    if (term.weight > 0) own.push_back(term);
  if (own.size() > kKeptTerms) own = joined(own, net);
  terms.insert(terms.end(), own.begin(), own.end());
  first.push_back(std::uint32_t(terms.size()));
}

void RememberedPlaces::Terms::append(const Terms& other) {
  const std::uint32_t offset = std::uint32_t(terms.size());
  terms.insert(terms.end(), other.terms.begin(), other.terms.end());
  for (std::size_t i = 1; i < other.first.size(); ++i) first.push_back(offset + other.first[i]);
}

std::size_t RememberedPlaces::terms() const {
  std::size_t sum = 0;
  for (const Place& place : places_) sum += place.patches.terms.size() + place.receivers.terms.size();
  return sum;
}

std::optional<RememberedPlaces> RememberedPlaces::of(
    const transport::Transport& transport, const std::vector<photometry::PlacedLuminaire>& luminaires,
    const Watch& watch, const transport::ReceiverChoice& choice) {
  const bool straight = transport.exchange().straight.complete;
  const std::size_t points = transport.patches().size() + transport.receivers().size();
  if (!straight || luminaires.empty() || points * luminaires.size() > kMostTerms) return std::nullopt;
  RememberedPlaces places(transport, luminaires, choice);
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    places.places_.push_back(places.remember(luminaire, watch));
    if (places.terms() > kMostTerms) return std::nullopt;
  }
  places.like_ = sources::relight(transport, luminaires, watch, choice);
  return places;
}

RememberedPlaces::Place RememberedPlaces::remember(const photometry::PlacedLuminaire& luminaire,
                                                   const Watch& watch) const {
  const transport::PatchSet& patches = transport_->patches();
  const std::size_t n = patches.size(), points = transport_->receivers().size();
  const DirectLight open(luminaire, nullptr);
  const DirectLight shaded(luminaire, &transport_->tracer(), &transport_->occluders());
  const PatchPoints on_patches{patches, open, transport_->effort().seed};
  Place place;
  if (transport_->occluders().any()) place.seen.setZero(Eigen::Index(n), transport::kSets);
  std::vector<Terms> blocks(blocks_of(n));
  for_points(n, watch, "places", [&](std::size_t i) {
    LightTerms tape;
    if (const double arriving = transport_->exchange().straight.arriving[Eigen::Index(i)]; arriving > 0) {
      on_patches.flux_on<LightStretch>(i, &tape) *= arriving;
      if (place.seen.size() > 0 && tape.size() > 0) {
        const auto seen = on_patches.seen_in_sets(transport_->tracer(), transport_->occluders(), i);
        for (int set = 0; set < transport::kSets; ++set)
          place.seen(Eigen::Index(i), set) = seen[std::size_t(set)];
      }
    }
    blocks[i / kTogether].close_point(tape, kNetOfPatches);
  });
  for (const Terms& block : blocks) place.patches.append(block);
  blocks.assign(blocks_of(points), {});
  for_points(points, watch, "places", [&](std::size_t r) {
    const readings::Receiver& receiver = transport_->receivers()[r];
    LightTerms tape;
    const bool hidden = transport_->occluders().may_block({receiver.position},
                                                          {luminaire.frame.origin, open.surface().reach_m()});
    const bool is_read = !receiver.reflected_only && transport::is_chosen(choice_, r);
    if (is_read) (hidden ? shaded : open).illuminance(receiver, tape);
    blocks[r / kTogether].close_point(tape, kNetOfReceivers);
  });
  for (const Terms& block : blocks) place.receivers.append(block);
  return place;
}

/// What is left of the flux that arrives on patches, in every sample set scaled to the luminaire's. Gives
/// what points found before that.
double RememberedPlaces::add(const Place& place, const Eigen::VectorXd& flux, double emitted_lm,
                             transport::Inflow& inflow) {
  inflow.emitted_lm += emitted_lm;
  if (place.seen.size() == 0) {
    const double sum = flux.sum();
    inflow.on_patches.add(transport::SampledFlux::of(flux), sum > 0 ? emitted_lm / sum : 0);
    return sum;
  }
  const Eigen::VectorXf single = flux.cast<float>();
  Eigen::MatrixXf sets(flux.size(), transport::kSets);
  double found = 0;
  for (Eigen::Index set = 0; set < transport::kSets; ++set) {
    const double sum = double(single.dot(place.seen.col(set)));
    found += sum / transport::kSets;
    const float factor = float(emitted_lm / std::max(sum, 1e-9 * emitted_lm));
    sets.col(set) = factor * single.cwiseProduct(place.seen.col(set));
  }
  inflow.on_patches.add(transport::SampledFlux::of_sets(std::move(sets)));
  return found;
}

transport::GroupLight RememberedPlaces::relight(
    const std::shared_ptr<const photometry::IntensityTable>& table, const Watch& watch) const {
  const std::size_t n = transport_->patches().size(), points = transport_->receivers().size();
  std::vector<double> direct(points, 0.0);
  Eigen::MatrixXd flux(n, places_.size());  // if nothing is hidden
  for_points(n + points, watch, "light from known places", [&](std::size_t i) {
    for (std::size_t p = 0; p < places_.size(); ++p) {
      if (i < n)
        flux(Eigen::Index(i), Eigen::Index(p)) = places_[p].patches.sum(*table, i);
      else
        direct[i - n] += places_[p].receivers.sum(*table, i - n);
    }
  });
  transport::Inflow inflow;
  inflow.on_patches = transport::SampledFlux::none(n);
  double caught = 0;
  for (std::size_t p = 0; p < places_.size(); ++p) {
    const double found = add(places_[p], flux.col(Eigen::Index(p)), table->flux(), inflow);
    caught += found;
    const double tolerance = capture_tolerance(places_[p].seen.size() > 0) * table->flux();
    if (found > 0 && std::abs(found - table->flux()) <= tolerance) continue;
    std::vector<photometry::PlacedLuminaire> luminaires = luminaires_;
    for (photometry::PlacedLuminaire& luminaire : luminaires) luminaire.table = table;
    return sources::relight(*transport_, luminaires, watch, choice_);
  }
  if (const Eigen::VectorXd& landing = transport_->exchange().straight.landing; landing.size() > 0) {
    inflow.on_patches.reduce(landing);
    inflow.escaped_lm = inflow.emitted_lm - inflow.on_patches.mean_lm.sum();
  }
  inflow.captured_share = inflow.emitted_lm > 0 ? caught / inflow.emitted_lm : 1;
  inflow.direct_lx = std::move(direct);
  return transport_->carry(std::move(inflow), watch, &like_, choice_);
}

}  // namespace glow::sources
