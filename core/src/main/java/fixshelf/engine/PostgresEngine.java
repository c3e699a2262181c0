package fixshelf.engine;

import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Optional;

/// PostgreSQL: the server that `FIXSHELF_POSTGRESQL` names, or one found here.
final class PostgresEngine extends ServerEngine {
    private static final List<Path> FOLDERS = List.of(
            Path.of("/usr/lib/postgresql/*/bin"),
            Path.of("/usr/local/pgsql/bin"),
            Path.of("/opt/homebrew/bin"),
            Path.of("/usr/local/bin"));

    PostgresEngine() {
        super((SqlLanguage) Languages.find("postgresql").orElseThrow(), "FIXSHELF_POSTGRESQL");
    }

    @Override
    Optional<Path> program() {
        return PrivateServer.find("postgres", FOLDERS)
                .filter(p -> p.resolveSibling("initdb").toFile().canExecute());
    }

    @Override
    String addressForm() {
        return "jdbc:postgresql://host/db?user=…";
    }

    @Override
    PrivateServer prepare() throws IOException {
        return PrivateServer.prepare("postgresql", "postgres");
    }

    @Override
    String start(PrivateServer server, Path program) throws IOException {
        Path secret = server.write("secret", server.password());
        String data = server.folder().resolve("data").toString();
        server.run(List.of(
                program.resolveSibling("initdb").toString(),
                "-D",
                data,
                "-E",
                "UTF8",
                "--locale=C.UTF-8",
                "-A",
                "scram-sha-256",
                "-U",
                "fixshelf",
                "--pwfile=" + secret,
                "--no-sync"));
        server.serve(List.of(
                program.toString(),
                "-D",
                data,
                "-p",
                String.valueOf(server.port()),
                "-k",
                server.folder().toString(),
                "-c",
                "listen_addresses=127.0.0.1",
                "-c",
                "fsync=off"));
        return "jdbc:postgresql://127.0.0.1:" + server.port() + "/postgres?user=fixshelf&password=" + server.password();
    }

    @Override
    void begin(Statement statement) throws SQLException {
        statement.execute("SET statement_timeout = '" + QUERY_SECONDS + "s'");
    }

    @Override
    Presence look(Connection connection) throws SQLException {
        String encoding = first(connection, "SHOW server_encoding");
        return encoding.equals("UTF8")
                ? new Presence.Here(first(connection, "SHOW server_version").split(" ")[0])
                : new Presence.Absent("the database has encoding " + encoding + ", not UTF8");
    }
}
