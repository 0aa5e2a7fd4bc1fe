// `burl-stand-in`: plays an instrument over a pseudo-terminal, so that the program can be tried and tested without one.
//
//     burl-stand-in thermocouple|meter|air|scale [VALUES]  the same in °C, percent of moisture, °C and percent of humidity, grams
//     burl-stand-in gauge --day [--bad] [--flood]   sends a plausible day by itself, a line each quarter second; bad: with noise, drop-outs
//     and
//                                                   garble; flood: as fast as the line takes it, over and over
//     burl-stand-in gauge [VALUES]    prints the path of its line, then sends a reading at each press of Enter: the next of
//                                     VALUES (mm, a line each), or what was typed before Enter
#include <cerrno>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <fstream>
#include <iostream>
#include <string>
#include <utility>
#include <vector>

#include <fcntl.h>
#include <termios.h>
#include <unistd.h>

#include "devices/probe.h"

namespace {

int fail(const std::string& what, int code) {
    std::cerr << "burl-stand-in: " << what << '\n';
    return code;
}

/// A pseudo-terminal that passes bytes as they are. @returns its master side, or −1.
int open_line() {
    const int master = posix_openpt(O_RDWR | O_NOCTTY);
    if (master < 0 || grantpt(master) != 0 || unlockpt(master) != 0) return -1;
    termios raw{};
    tcgetattr(master, &raw);
    cfmakeraw(&raw);
    tcsetattr(master, TCSANOW, &raw);
    return master;
}

bool send(int master, const std::string& line) { return write(master, line.data(), line.size()) == static_cast<ssize_t>(line.size()); }

}  // namespace

int main(int argc, char** argv) {
    static constexpr std::pair<const char*, const char*> instruments[] = {
        {"gauge", "mm"}, {"thermocouple", "C"}, {"meter", "%MC"}, {"air", "C"}, {"scale", "g"}};
    const char* unit = nullptr;
    for (const auto& [name, of] : instruments)
        if (argc > 1 && std::strcmp(argv[1], name) == 0) unit = of;
    if (!unit)
        return fail("which instrument? usage: burl-stand-in gauge|thermocouple|meter|air|scale [VALUES] [--day] [--bad] [--flood]", 2);
    const auto reading = [unit](double v) { return yb::instrument_line(v, unit); };
    bool day = false, bad = false, flood = false;
    for (int i = 2; i < argc; ++i)
        day = day || !std::strcmp(argv[i], "--day"), bad = bad || !std::strcmp(argv[i], "--bad"),
        flood = flood || !std::strcmp(argv[i], "--flood");
    std::vector<double> values;
    if (argc > 2 && argv[2][0] != '-') {
        std::ifstream in(argv[2]);
        if (!in) return fail(std::string(argv[2]) + " can't be read", 2);
        for (double v = 0; in >> v;) values.push_back(v);
        if (!in.eof()) return fail(std::string(argv[2]) + ": one number a line is wanted, in mm or °C", 2);
    }
    const int master = open_line();
    if (master < 0) return fail(std::string("no pseudo-terminal to be had: ") + std::strerror(errno), 1);
    std::cout << ptsname(master) << std::endl;
    // Held open, so that nothing is lost when the program that listens goes away and comes back.
    const int held = open(ptsname(master), O_RDWR | O_NOCTTY);
    if (day || flood) {
        do
            for (const std::string& line : yb::day_of(argv[1], bad)) {
                send(master, line);
                if (!flood) usleep(250000);
            }
        while (flood);
        usleep(200000);
        close(held);
        close(master);
        return 0;
    }
    send(master, std::string("H ") + (std::strcmp(argv[1], "gauge") == 0 ? "depth gauge" : argv[1]) + ", stand-in\r\n");
    std::size_t next = 0;
    for (std::string typed; std::getline(std::cin, typed);) {
        if (typed == "z") {
            send(master, "Z\r\n");
        } else if (!typed.empty()) {
            char* end = nullptr;
            const double v = std::strtod(typed.c_str(), &end);
            if (end == typed.c_str() || *end != '\0') send(master, typed + "\r\n");  // any line at all, to try what is said of it
            else send(master, reading(v));
        } else if (next < values.size()) {
            send(master, reading(values[next++]));
        } else if (!values.empty()) {
            return fail("that was the last of the values", 0);
        }
    }
    usleep(200000);  // what was sent last is still to be read
    close(held);
    close(master);
    return 0;
}
