#include "files/pictures/picture_exr.hpp"

#include <ImfArray.h>
#include <ImfChannelList.h>
#include <ImfCompression.h>
#include <ImfFrameBuffer.h>
#include <ImfHeader.h>
#include <ImfInputFile.h>
#include <ImfOutputFile.h>
#include <ImfStringAttribute.h>
#include <ImfThreading.h>
#include <fmt/format.h>
#include <half.h>

#include <cmath>
#include <cstring>
#include <nlohmann/json.hpp>

#include "core/parallel/parallel.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace {

using json = nlohmann::ordered_json;

constexpr const char* kAttribute = "glowgrid.picture";
constexpr int kFormat = 1;
constexpr int kCompression = 1;   // of 9: hardly larger, in a quarter of the time
constexpr int kMostSide = 16384;  // pixels
constexpr std::size_t kMostSources = 4096;
constexpr double kMostNumbers = 3e8;  // of all channels: 1.2 GB

json vector_json(const Vec3& v) {
  return {v.x(), v.y(), v.z()};
}

Vec3 vector_in(const json& j) {
  return {j.at(0).get<double>(), j.at(1).get<double>(), j.at(2).get<double>()};
}

const char* projection_words(geometry::Projection projection) {
  switch (projection) {
    case geometry::Projection::perspective:
      return "perspective";
    case geometry::Projection::parallel:
      return "parallel";
    case geometry::Projection::panorama:
      break;
  }
  return "panorama";
}

json camera_json(const geometry::Camera& camera) {
  return {{"projection", projection_words(camera.projection)},
          {"eye_m", vector_json(camera.eye)},
          {"forward", vector_json(camera.forward)},
          {"right", vector_json(camera.right)},
          {"up", vector_json(camera.up)},
          {"half_width", camera.half_width},
          {"from_outside", camera.from_outside}};
}

geometry::Camera camera_in(const json& j) {
  geometry::Camera camera;
  const std::string projection = j.at("projection").get<std::string>();
  for (const auto known :
       {geometry::Projection::perspective, geometry::Projection::parallel, geometry::Projection::panorama})
    if (projection == projection_words(known)) camera.projection = known;
  camera.eye = vector_in(j.at("eye_m"));
  camera.forward = vector_in(j.at("forward"));
  camera.right = vector_in(j.at("right"));
  camera.up = vector_in(j.at("up"));
  camera.half_width = j.at("half_width").get<double>();
  camera.from_outside = j.at("from_outside").get<bool>();
  return camera;
}

json picture_json(const views::Picture& picture) {
  json j = {{"format", kFormat},
            {"room", picture.room},
            {"view", picture.view},
            {"kind", picture.kind},
            {"camera", camera_json(picture.camera)},
            {"surfaces", picture.surface_names},
            {"sources", json::array()},
            {"uses", json::array()}};
  for (const views::PictureLayer& layer : picture.layers)
    j["sources"].push_back(
        {{"name", layer.source}, {"moment", layer.is_moment}, {"uncertainty", layer.uncertainty}});
  for (const views::PictureUse& use : picture.uses) {
    json colours = json::array();
    for (const auto& colour : use.colours)
      colours.push_back(colour ? json({colour->x, colour->y}) : json(nullptr));
    j["uses"].push_back(
        {{"name", use.name}, {"when", use.when}, {"weights", use.weights}, {"chromaticities", colours}});
  }
  return j;
}

/// All but the pixels. Throws on whatever is not as it was written.
views::Picture picture_in(const json& j) {
  if (j.at("format").get<int>() != kFormat) throw std::runtime_error("it is of another version");
  views::Picture picture;
  picture.room = j.at("room").get<std::string>();
  picture.view = j.at("view").get<std::string>();
  picture.kind = j.at("kind").get<std::string>();
  picture.camera = camera_in(j.at("camera"));
  picture.surface_names = j.at("surfaces").get<std::vector<std::string>>();
  if (j.at("sources").size() > kMostSources) throw std::runtime_error("it has too many sources");
  for (const json& source : j.at("sources")) {
    picture.layers.emplace_back();
    picture.layers.back().source = source.at("name").get<std::string>();
    picture.layers.back().is_moment = source.at("moment").get<bool>();
    picture.layers.back().uncertainty = source.at("uncertainty").get<double>();
  }
  for (const json& own : j.at("uses")) {
    views::PictureUse use;
    use.name = own.at("name").get<std::string>();
    use.when = own.at("when").get<std::string>();
    use.weights = own.at("weights").get<std::vector<double>>();
    for (const json& colour : own.at("chromaticities"))
      use.colours.push_back(colour.is_null() ? std::nullopt
                                             : std::optional(colour::Chromaticity{
                                                   colour.at(0).get<double>(), colour.at(1).get<double>()}));
    if (use.weights.size() != picture.layers.size() || use.colours.size() != picture.layers.size())
      throw std::runtime_error("a use does not fit its sources");
    for (const auto& c : use.colours)
      if (c && !(c->y > 1e-3 && c->y < 1 && c->x >= 0 && c->x < 1))
        throw std::runtime_error("a source has a colour that no light has");
    picture.uses.push_back(std::move(use));
  }
  if (picture.uses.empty()) throw std::runtime_error("it shows no use");
  return picture;
}

/// A channel's floats, which lie `stride` apart. What is of one source is kept in half precision, in units of
/// `unit`: room enough for sunlight, and 0.05 % is finer than any picture is sure.
template <class Float>
struct Channel {
  std::string name;
  Float* values;
  std::size_t stride = 1;
  float unit = 0;              ///< 0: kept as it is
  Float* luminance = nullptr;  ///< kept as shares of it; null: by itself
};

constexpr float kUnit = 100;        // cd/m2 or lx
constexpr float kMostHalf = 65504;  // in those units

template <class Picture>
auto channels_of(Picture& picture) {
  using Float = std::remove_pointer_t<decltype(picture.depth_m.data())>;
  std::vector<Channel<Float>> channels = {{"Z", picture.depth_m.data()},
                                          {"normal.X", picture.normals.data(), 3, 1},
                                          {"normal.Y", picture.normals.data() + 1, 3, 1},
                                          {"normal.Z", picture.normals.data() + 2, 3, 1}};
  for (std::size_t s = 0; s < picture.layers.size(); ++s) {
    auto& layer = picture.layers[s];
    const auto name = [&](const char* what) { return fmt::format(FMT_STRING("source{}.{}"), s, what); };
    channels.push_back({name("luminance"), layer.luminance.data(), 1, kUnit});
    channels.push_back({name("illuminance"), layer.illuminance.data(), 1, kUnit});
    for (std::size_t b = 0; b < 3 && !layer.bands.empty(); ++b)
      channels.push_back({fmt::format(FMT_STRING("source{}.band{}"), s, b), layer.bands.data() + b, 3, 1,
                          layer.luminance.data()});
  }
  return channels;
}

/// To a 4000th: what lies below is noise, which takes most of the room.
void round_off(std::vector<float>& values) {
  for (float& value : values) {
    std::uint32_t bits = 0;
    std::memcpy(&bits, &value, sizeof bits);
    bits = (bits + 0x800u) & ~0xfffu;
    if (std::isfinite(value)) std::memcpy(&value, &bits, sizeof bits);
  }
}

/// Written slices are only read, though the library asks for more.
Imf::Slice slice_of(const float* values, std::size_t stride, int columns) {
  return {Imf::FLOAT, reinterpret_cast<char*>(const_cast<float*>(values)), stride * sizeof(float),
          stride * sizeof(float) * std::size_t(columns)};
}

std::vector<half> halves_of(const Channel<const float>& channel, std::size_t count) {
  std::vector<half> halves(count);
  for (std::size_t i = 0; i < count; ++i) {
    float value = channel.values[i * channel.stride];
    if (channel.luminance) value = channel.luminance[i] > 0 ? value / channel.luminance[i] : 0;
    halves[i] = half(std::min(value / channel.unit, kMostHalf));
  }
  return halves;
}

}  // namespace

void write_exr(const views::Picture& picture, const views::PictureUse& use,
               const std::filesystem::path& file) {
  const views::SeenLight light = views::seen_light(picture, use);
  const std::size_t n = picture.pixels();
  std::vector<float> rgb(3 * n), surfaces(n);
  for (std::size_t i = 0; i < n; ++i) {
    const Vec3 shown = colour::linear_srgb(light.colour[i].cast<double>());
    for (std::size_t k = 0; k < 3; ++k) rgb[3 * i + k] = float(shown[Eigen::Index(k)]);
    surfaces[i] = float(picture.surfaces[i]);
  }
  std::vector<Channel<const float>> channels = channels_of(picture);
  for (std::size_t k = 0; k < 3; ++k) channels.push_back({std::string(1, "RGB"[k]), rgb.data() + k, 3});
  std::vector<float> luminance = light.luminance, illuminance = light.illuminance, depth = picture.depth_m;
  for (std::vector<float>* values : {&rgb, &luminance, &illuminance, &depth}) round_off(*values);
  channels.front().values = depth.data();
  channels.push_back({"luminance", luminance.data()});
  channels.push_back({"illuminance", illuminance.data()});
  channels.push_back({"surface", surfaces.data()});
  Imf::Header header(picture.camera.columns, picture.camera.rows);
  header.compression() = Imf::ZIP_COMPRESSION;
  header.zipCompressionLevel() = kCompression;
  Imf::setGlobalThreadCount(thread_count());
  header.insert(kAttribute, Imf::StringAttribute(json_line(picture_json(picture))));
  Imf::FrameBuffer buffer;
  std::vector<std::vector<half>> halves(channels.size());
  parallel_for(channels.size(), {}, "", [&](std::size_t k) {
    if (channels[k].unit > 0) halves[k] = halves_of(channels[k], n);
  });
  for (std::size_t k = 0; k < channels.size(); ++k) {
    const Channel<const float>& channel = channels[k];
    header.channels().insert(channel.name, Imf::Channel(channel.unit > 0 ? Imf::HALF : Imf::FLOAT));
    buffer.insert(channel.name,
                  channel.unit > 0
                      ? Imf::Slice(Imf::HALF, reinterpret_cast<char*>(halves[k].data()), sizeof(half),
                                   sizeof(half) * std::size_t(picture.camera.columns))
                      : slice_of(channel.values, channel.stride, picture.camera.columns));
  }
  Imf::OutputFile out(file.c_str(), header);
  out.setFrameBuffer(buffer);
  out.writePixels(picture.camera.rows);
}

std::optional<views::Picture> read_exr(const std::filesystem::path& file, Problems& problems) {
  const auto fault = [&](const std::string& found) {
    problems.error("V001", {file.string(), 0, 0},
                   fmt::format(FMT_STRING("is no picture that can be read: {}; expected an OpenEXR file that "
                                          "\"run\" or \"view\" wrote"),
                               found));
    return std::nullopt;
  };
  try {
    Imf::InputFile in(file.c_str());
    const Imf::Header& header = in.header();
    const auto* words = header.findTypedAttribute<Imf::StringAttribute>(kAttribute);
    if (!words) return fault("it says nothing of sources and uses");
    views::Picture picture = picture_in(parsed_json(words->value()));
    const Imath::Box2i& window = header.dataWindow();
    const double columns = double(window.max.x) - window.min.x + 1,
                 rows = double(window.max.y) - window.min.y + 1;
    if (window.min.x != 0 || window.min.y != 0 || columns < 1 || rows < 1 || columns > kMostSide ||
        rows > kMostSide || columns * rows * double(5 + 5 * picture.layers.size()) > kMostNumbers)
      return fault(fmt::format(FMT_STRING("{:.0f} x {:.0f} pixels of {} sources are not to be expected"),
                               columns, rows, picture.layers.size()));
    picture.camera.columns = int(columns);
    picture.camera.rows = int(rows);
    const std::size_t n = picture.pixels();
    picture.depth_m.resize(n);
    picture.normals.resize(3 * n);
    for (std::size_t s = 0; s < picture.layers.size(); ++s) {
      picture.layers[s].luminance.resize(n);
      picture.layers[s].illuminance.resize(n);
      if (header.channels().findChannel(fmt::format(FMT_STRING("source{}.band0"), s)))
        picture.layers[s].bands.resize(3 * n);
    }
    std::vector<float> surfaces(n);
    std::vector<Channel<float>> channels = channels_of(picture);
    channels.push_back({"surface", surfaces.data()});
    Imf::FrameBuffer buffer;
    for (const Channel<float>& channel : channels) {
      const Imf::Channel* held = header.channels().findChannel(channel.name);
      if (!held || held->xSampling != 1 || held->ySampling != 1)
        return fault(fmt::format(FMT_STRING("the channel {} is missing"), channel.name));
      buffer.insert(channel.name, slice_of(channel.values, channel.stride, picture.camera.columns));
    }
    in.setFrameBuffer(buffer);
    in.readPixels(0, picture.camera.rows - 1);
    for (const Channel<float>& channel : channels)
      for (std::size_t i = 0; i < n && channel.name != "Z"; ++i)
        if (!std::isfinite(channel.values[i * channel.stride]))
          return fault(fmt::format(FMT_STRING("the channel {} holds what is no number"), channel.name));
    for (const Channel<float>& channel : channels)  // luminance before its shares
      for (std::size_t i = 0; i < n && channel.unit > 0; ++i)
        channel.values[i * channel.stride] *= channel.unit * (channel.luminance ? channel.luminance[i] : 1);
    picture.surfaces.resize(n);
    for (std::size_t i = 0; i < n; ++i)
      picture.surfaces[i] = surfaces[i] >= 0 && surfaces[i] < float(picture.surface_names.size())
                                ? std::int32_t(surfaces[i])
                                : -1;
    return picture;
  } catch (const std::exception& error) {
    return fault(error.what());
  }
}

}  // namespace glow::files
