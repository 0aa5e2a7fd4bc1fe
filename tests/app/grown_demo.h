// The demo shop with its pictures, grown once for a build: growing them takes longer than most tests do.
#pragma once

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QLockFile>
#include <QTemporaryDir>

#include <catch2/catch.hpp>

#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "demo/demo.h"

namespace yb {

/// A shop file beside the program under test, of the same build as it; copy it, never work on it.
inline QString grown_demo() {
    static const QString path = [] {
        const QFileInfo program(QCoreApplication::applicationFilePath());
        const QDir beside = program.dir();
        const QString at = beside.filePath("demo-" + QString::number(program.lastModified().toMSecsSinceEpoch()) + ".shop");
        QLockFile one(beside.filePath("demo.lock"));  // tests run side by side
        one.setStaleLockTime(0);
        REQUIRE(one.lock());
        if (QFile::exists(at)) return at;
        for (const QString& old : beside.entryList({"demo-*.shop"}, QDir::Files)) QFile::remove(beside.filePath(old));
        const QTemporaryDir making(beside.filePath("growing-XXXXXX"));
        const QString made = making.filePath("a.shop");
        Store::create(made.toStdString(), demo_shop(), "New shop").attach(demo_pictures());
        REQUIRE(QFile::rename(made, at));
        return at;
    }();
    return path;
}

}  // namespace yb
