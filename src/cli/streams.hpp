#pragma once

#include <cstdio>
#include <string>

namespace glow::cli {

/// Gives closed standard streams something to stand on, so that no file that is opened later takes the place
/// of one. Writing to a standard output that was closed fails, and is told; a closed standard error swallows.
void hold_streams();

/// From now on nothing is said or told: somebody else speaks.
void keep_silent();

/// Text to standard error. A stream that takes nothing is not a reason to stop.
void say(const std::string& text);
/// "glowgrid COMMAND: words" to standard error; false, for those who give up then.
bool refused(const char* command, const std::string& words);
/// Text to standard output; `output_failed` tells at the end whether all of it arrived.
void tell(const std::string& text);
/// Whether something for standard output was lost. Writes out what waits.
bool output_failed();

}  // namespace glow::cli
