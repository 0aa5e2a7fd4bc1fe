// Runs `burl` as a shell would.
#pragma once

#include <array>
#include <cstdio>
#include <string>

#include <sys/wait.h>
#include <catch2/catch.hpp>

#include "core/files/io/json.h"

namespace yb {

struct Run {
    int code = 0;
    std::string out;
};
/// Runs `burl` through the shell; both streams are read.
inline Run burl(const std::string& args) {
    std::string line = BURL_COMMAND;
    line.append(" ").append(args).append(" 2>&1");
    FILE* p = popen(line.c_str(), "r");
    REQUIRE(p);
    Run r;
    std::array<char, 4096> buffer{};
    while (const auto n = fread(buffer.data(), 1, buffer.size(), p)) r.out.append(buffer.data(), n);
    r.code = WEXITSTATUS(pclose(p));
    return r;
}
inline Json json(const Run& r) {
    INFO(r.out);
    REQUIRE(r.code == 0);
    return parse_json(r.out);
}
/// The same of what has to succeed.
inline Json json(const std::string& args) {
    INFO(args);
    return json(burl(args));
}

}  // namespace yb
