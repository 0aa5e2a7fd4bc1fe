// A file of the tree as text.
#pragma once

#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>

inline std::string text_of(const std::filesystem::path& p) {
    std::ifstream in(p);
    std::stringstream s;
    s << in.rdbuf();
    return s.str();
}
