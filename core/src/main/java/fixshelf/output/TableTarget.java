package fixshelf.output;

import fixshelf.fetch.ServerAddress;
import java.util.Optional;

/// A table that is written.
///
/// @param engine `postgresql`, `mariadb`, `sqlite` or `duckdb`
/// @param server where it is; empty for a database that is a file
/// @param table its name, with that of its schema before a point where a server has several
/// @param user whose rights are used; empty for what the driver takes
/// @param passwordFrom the variable of the system that holds the password; empty for none
public record TableTarget(
        String engine, Optional<ServerAddress> server, String table, Mode mode, String user, String passwordFrom) {

    /// What becomes of a table of that name.
    public enum Mode {
        /// There must be none.
        CREATE,
        /// It goes, and another takes its place.
        REPLACE,
        /// It gets more rows.
        APPEND
    }

    /// As messages name it.
    public String shown() {
        return "table " + table + server.map(s -> " of " + s.shown()).orElse("");
    }
}
