// What the tests of the shop file share: a folder of their own, and shops to begin with.
#pragma once

#include <filesystem>
#include <fstream>
#include <string>

#include <catch2/catch.hpp>

#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"

namespace yb {

struct Folder {
    std::filesystem::path path;
    Folder() {
        std::string t = (std::filesystem::temp_directory_path() / "yb-store-XXXXXX").string();
        path = mkdtemp(t.data());
    }
    ~Folder() {
        std::error_code e;
        std::filesystem::remove_all(path, e);
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    std::string file(const std::string& name) const { return (path / name).string(); }
};

inline Documents named(Documents d, const std::string& name) {
    d.jobs.begin()->second.name = name;
    return d;
}
inline std::string name_in(const Store& s) { return s.documents().jobs.begin()->second.name; }

/// What kind of failure opening it is. @param says where the sentence goes.
inline StoreError::Kind kind_of_failure(const std::string& path, std::string* says = nullptr) {
    try {
        Store::open(path);
    } catch (const StoreError& e) {
        if (says) *says = e.what();
        return e.kind();
    }
    FAIL("it opened");
    return StoreError::Kind::other;
}

inline std::string bytes_of(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}
inline void write_bytes(const std::string& path, const std::string& bytes) { std::ofstream(path, std::ios::binary) << bytes; }

}  // namespace yb
