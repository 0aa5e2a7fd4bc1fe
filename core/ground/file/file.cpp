#include "core/ground/file/file.h"

#include <algorithm>
#include <cerrno>

#include <fcntl.h>
#include <fmt/format.h>
#include <poll.h>
#include <sys/stat.h>
#include <unistd.h>

#include "core/ground/file/format_error.h"

namespace yb {

std::string read_file(const std::string& path, std::uint64_t most_bytes) {
    struct Descriptor {
        int fd;
        explicit Descriptor(const std::string& p) : fd(::open(p.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC)) {}
        ~Descriptor() {
            if (fd >= 0) ::close(fd);
        }
        Descriptor(const Descriptor&) = delete;
        Descriptor& operator=(const Descriptor&) = delete;
    } const file(path);
    const auto fail = [&](const std::string& what) -> FormatError { return {path, what}; };
    if (file.fd < 0)
        throw fail(errno == EACCES ? "it can't be read: you have no permission to. Ask whoever owns it, or copy it to a folder of your own"
                                   : "there is no such file, or it can't be read. Choose another");
    struct stat s {};
    if (::fstat(file.fd, &s) != 0) throw fail("it can't be read. Choose another");
    if (S_ISDIR(s.st_mode)) throw fail("this is a folder, not a file. Choose a file in it");
    if (S_ISCHR(s.st_mode) || S_ISBLK(s.st_mode)) throw fail("this is a device, not a file. Choose a file");
    const bool regular = S_ISREG(s.st_mode);
    const auto too_long = [&] {
        return fail(fmt::format("it is longer than {} MB, the most that is read here. Make it smaller and try again", most_bytes >> 20));
    };
    if (regular && static_cast<std::uint64_t>(s.st_size) > most_bytes) throw too_long();
    std::string bytes;
    std::uint64_t wanted = regular ? static_cast<std::uint64_t>(s.st_size) : most_bytes + 1;
    constexpr std::uint64_t piece = std::uint64_t{1} << 20;
    while (bytes.size() < wanted) {
        if (!regular) {
            pollfd p{file.fd, POLLIN, 0};
            if (::poll(&p, 1, 10000) == 0) throw fail("nothing came out of this pipe for ten seconds");
        }
        const std::size_t at = bytes.size();
        bytes.resize(at + static_cast<std::size_t>(std::min(wanted - at, piece)));
        const ssize_t got = ::read(file.fd, bytes.data() + at, bytes.size() - at);
        if (got < 0 && (errno == EINTR || errno == EAGAIN)) {
            bytes.resize(at);
            continue;
        }
        bytes.resize(at + static_cast<std::size_t>(std::max<ssize_t>(0, got)));
        if (got < 0) throw fail("it can't be read to its end: the disk fails or was taken out");
        if (got == 0) break;
    }
    if (bytes.size() > most_bytes) throw too_long();
    return bytes;
}

}  // namespace yb
