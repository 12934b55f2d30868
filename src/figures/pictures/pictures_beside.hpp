#pragma once

#include <string>
#include <vector>

namespace glow::figures {

/// A picture of one of several states.
struct StatePicture {
  std::string state;
  std::string png;  ///< the file's bytes
};

/// Pictures of the same view side by side under their states' names; each as it was made, with its own
/// exposure in its caption. SVG, 1280 wide.
std::string pictures_beside(const std::string& title, const std::vector<StatePicture>& pictures);

}  // namespace glow::figures
