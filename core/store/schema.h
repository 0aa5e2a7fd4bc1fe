// The tables of a shop file, their versions, backups and checks. Used by the store only.
#pragma once

#include <string>

#include <SQLiteCpp/SQLiteCpp.h>

#include "core/store/store.h"

namespace yb {

inline constexpr int application_id = 0x59425348;  // "YBSH"
inline constexpr int schema_version = 3;

/// Write-ahead log, durable commits, foreign keys.
void prepare_connection(SQLite::Database& db);
void create_schema(SQLite::Database& db);

/// Brings an older file forward, one version at a time, in one transaction each.
void migrate(SQLite::Database& db);

/// Of a stored change: over its kind, the document's id and its body.
std::string digest_of_change(const std::string& kind, const std::string& id, const std::string& body);

/// A copy of today's state in backup_folder(), verified, unless there is one already; the newest 14 are kept. A
/// backup that can't be made is no reason not to open the shop.
void backup_once_a_day(SQLite::Database& db, const std::string& path);

/// True when the file and the folder it lies in can be written.
bool can_write(const std::string& path);

/// A URI that reads the file without making a log beside it.
std::string read_only_uri(const std::string& path);

/// The error for a report that is not ok.
StoreError shop_error(const std::string& path, const CheckReport& report);

StoreError sqlite_error(const SQLite::Exception& e, const std::string& path);

/// Puts one stored document into `docs`; an empty body takes it away. @throws FormatError.
void apply_document(Documents& docs, const std::string& kind, const std::string& id, const std::string& body);

}  // namespace yb
