#include "files/meshes/mesh_reader.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <map>
#include <nlohmann/json.hpp>

#include "files/meshes/mesh_parser.hpp"
#include "files/text/input_file.hpp"
#include "files/text/json_text.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

namespace fs = std::filesystem;

constexpr rlim_t kMostSeconds = 20;
constexpr rlim_t kMostMemory = rlim_t(3) << 29;  // 1.5 GB
#if defined(__SANITIZE_ADDRESS__)
constexpr bool kLimitMemory = false;  // the sanitizer's shadow is larger than any limit
#else
constexpr bool kLimitMemory = true;
#endif

/// Numbers and text as they lie in memory, from one process to its child's parent.
class Parcel {
 public:
  explicit Parcel(std::string bytes = {}) : bytes_(std::move(bytes)) {}
  const std::string& bytes() const { return bytes_; }
  void put(const void* data, std::size_t size) { bytes_.append(static_cast<const char*>(data), size); }
  void put(const std::string& text) {
    const std::uint64_t size = text.size();
    put(&size, sizeof size);
    put(text.data(), size);
  }
  template <class T>
  void put(const std::vector<T>& list) {
    const std::uint64_t size = list.size();
    put(&size, sizeof size);
    put(list.data(), size * sizeof(T));
  }
  bool take(void* data, std::size_t size) {
    if (size > bytes_.size() - at_) return false;
    if (size > 0) std::memcpy(data, bytes_.data() + at_, size);
    at_ += size;
    return true;
  }
  bool take(std::string& text) {
    std::uint64_t size = 0;
    if (!take(&size, sizeof size) || size > bytes_.size() - at_) return false;
    text.resize(size);
    return take(text.data(), size);
  }
  template <class T>
  bool take(std::vector<T>& list) {
    std::uint64_t size = 0;
    if (!take(&size, sizeof size) || size > (bytes_.size() - at_) / sizeof(T)) return false;
    list.resize(size);
    return take(static_cast<void*>(list.data()), size * sizeof(T));
  }

 private:
  std::string bytes_;
  std::size_t at_ = 0;
};

using Corner = std::array<double, 3>;

std::string packed(const geometry::Mesh& mesh, const std::string& fault) {
  Parcel parcel;
  parcel.put(fault);
  std::vector<Corner> corners;
  for (const Vec3& p : mesh.vertices) corners.push_back({p.x(), p.y(), p.z()});
  parcel.put(corners);
  for (const geometry::Mesh::Part& part : mesh.parts) {
    parcel.put(part.material);
    parcel.put(part.triangles);
  }
  return parcel.bytes();
}

bool unpacked(std::string bytes, geometry::Mesh& mesh, std::string& fault) {
  Parcel parcel(std::move(bytes));
  std::vector<Corner> corners;
  if (!parcel.take(fault) || !parcel.take(corners)) return false;
  for (const Corner& p : corners) mesh.vertices.emplace_back(p[0], p[1], p[2]);
  geometry::Mesh::Part part;
  while (parcel.take(part.material) && parcel.take(part.triangles)) mesh.parts.push_back(part);
  return true;
}

/// In the child: parses, writes the outcome to the pipe, and ends without unwinding what is the parent's.
[[noreturn]] void parse_in_child(int pipe, const fs::path& path, const fs::path& root, PartNames names) {
  const rlimit time{kMostSeconds, kMostSeconds}, memory{kMostMemory, kMostMemory}, no_core{0, 0};
  ::setrlimit(RLIMIT_CPU, &time);
  ::setrlimit(RLIMIT_CORE, &no_core);
  if (kLimitMemory) ::setrlimit(RLIMIT_AS, &memory);
  const int quiet = ::open("/dev/null", O_WRONLY);
  if (quiet >= 0) ::dup2(quiet, STDERR_FILENO);
  geometry::Mesh mesh;
  std::string fault;
  try {
    fault = parse_mesh(path, root, names, mesh);
  } catch (const std::exception& error) {
    fault = error.what();
  }
  if (!fault.empty()) mesh = {};
  const std::string bytes = packed(mesh, fault);
  std::size_t done = 0;
  while (done < bytes.size()) {
    const ssize_t n = ::write(pipe, bytes.data() + done, bytes.size() - done);
    if (n < 0 && errno != EINTR) break;
    if (n > 0) done += std::size_t(n);
  }
  ::_exit(done == bytes.size() ? 0 : 1);
}

std::string read_all(int pipe) {
  std::string bytes;
  char buffer[1 << 16];
  while (true) {
    const ssize_t n = ::read(pipe, buffer, sizeof buffer);
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0) return bytes;
    bytes.append(buffer, std::size_t(n));
  }
}

std::string lower_case_suffix(const fs::path& path) {
  std::string suffix = path.extension().string();
  std::transform(suffix.begin(), suffix.end(), suffix.begin(),
                 [](char c) { return c >= 'A' && c <= 'Z' ? char(c - 'A' + 'a') : c; });
  return suffix;
}

bool leads_out(const fs::path& name, const fs::path& folder) {
  if (name.is_absolute()) return true;
  std::error_code error;
  const fs::path root = fs::weakly_canonical(folder.empty() ? "." : folder, error);
  const fs::path relative = fs::weakly_canonical(folder / name, error).lexically_relative(root);
  return error || relative.empty() || *relative.begin() == "..";
}

}  // namespace

MeshResult read_mesh(const fs::path& path, PartNames names) {
  static const std::vector<std::string> kKnown = {".obj", ".stl", ".gltf", ".glb"};
  const std::string suffix = lower_case_suffix(path);
  if (std::find(kKnown.begin(), kKnown.end(), suffix) == kKnown.end())
    return {nullptr, "expected an OBJ, STL, glTF or GLB file (.obj, .stl, .gltf, .glb)"};
  std::error_code error;
  if (!fs::is_regular_file(path, error)) return {nullptr, "there is no such file"};
  const auto size = fs::file_size(path, error);
  if (!error && size == 0) return {nullptr, "the file is empty; export it again"};
  if (error || size > kLargestMeshFile)
    return {nullptr, fmt::format(FMT_STRING("it has {} bytes; at most {} are read"), size, kLargestMeshFile)};
  int ends[2];
  if (::pipe2(ends, O_CLOEXEC) != 0) return {nullptr, std::strerror(errno)};
  const fs::path whole = fs::canonical(path, error);
  const pid_t child = ::fork();
  if (child == 0) {
    ::close(ends[0]);
    parse_in_child(ends[1], whole, whole.parent_path(), names);
  }
  ::close(ends[1]);
  if (child < 0) {
    ::close(ends[0]);
    return {nullptr, std::strerror(errno)};
  }
  std::string bytes = read_all(ends[0]);
  ::close(ends[0]);
  int status = 0;
  while (::waitpid(child, &status, 0) < 0 && errno == EINTR) {
  }
  auto mesh = std::make_shared<geometry::Mesh>();
  std::string fault;
  const bool whole_answer = WIFEXITED(status) && WEXITSTATUS(status) == 0;
  if (!whole_answer || !unpacked(std::move(bytes), *mesh, fault))
    return {nullptr, WIFSIGNALED(status) && WTERMSIG(status) == SIGXCPU
                         ? "taking it apart took too long; simplify it"
                         : "it is damaged, or too large: the parser gave up on it"};
  if (!fault.empty()) return {nullptr, fault};
  return {std::move(mesh), {}};
}

std::vector<std::string> files_of_mesh(const fs::path& path) {
  const std::string suffix = lower_case_suffix(path);
  Problems ignored;  // whoever reads the mesh is told
  const auto bytes = read_file(path, kLargestMeshFile, {}, ignored);
  std::vector<std::string> names;
  if (!bytes) return names;
  if (suffix == ".obj") {
    constexpr std::string_view kWord = "mtllib ";
    for (const std::string_view line : split_lines(*bytes))
      if (line.substr(0, kWord.size()) == kWord) names.emplace_back(trimmed(line.substr(kWord.size())));
  } else if (suffix == ".gltf") {
    const auto document = parsed_json(*bytes);
    if (document.is_object() && document.contains("buffers") && document["buffers"].is_array())
      for (const auto& buffer : document["buffers"])
        if (buffer.is_object() && buffer.contains("uri") && buffer["uri"].is_string() &&
            buffer["uri"].get<std::string>().rfind("data:", 0) != 0)
          names.push_back(buffer["uri"].get<std::string>());
  }
  return names;
}

void load_meshes(model::Project& project, const fs::path& folder, Problems& problems) {
  std::map<std::string, MeshResult> read;
  std::vector<model::MeshUse*> uses;
  const auto add = [&](std::optional<model::MeshUse>& use) {
    if (use) uses.push_back(&*use);
  };
  for (model::Room& room : project.rooms) {
    for (model::Object& object : room.objects) add(object.mesh);
    add(room.ground.mesh);
  }
  for (model::Obstruction& each : project.site.obstructions) add(each.object.mesh);
  for (model::MeshUse* each : uses) {
    model::MeshUse& use = *each;
    if (leads_out(use.file, folder)) {
      problems.error("P043", use.place,
                     fmt::format(FMT_STRING("\"{}\" leads out of the project's folder; put the mesh into it, "
                                            "or below it"),
                                 use.file));
      continue;
    }
    const auto [found, is_new] = read.try_emplace(use.file);
    if (is_new) found->second = read_mesh(folder / use.file);
    use.mesh = found->second.mesh;
    if (!use.mesh)
      problems.error("P044", use.place,
                     fmt::format(FMT_STRING("\"{}\" cannot be used: {}"), use.file, found->second.fault));
  }
  for (model::Room& room : project.rooms)
    for (const model::Object& object : room.objects)
      if (object.mesh && !object.mesh->mesh) room.unread_objects.push_back(object.name);
}

}  // namespace glow::files
