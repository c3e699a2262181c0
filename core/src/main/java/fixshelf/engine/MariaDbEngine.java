package fixshelf.engine;

import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Optional;

/// MariaDB: the server that `FIXSHELF_MARIADB` names, or one found here.
final class MariaDbEngine extends ServerEngine {
    private static final List<Path> FOLDERS = List.of(
            Path.of("/usr/sbin"), Path.of("/usr/local/sbin"), Path.of("/opt/homebrew/bin"), Path.of("/usr/local/bin"));

    MariaDbEngine() {
        super((SqlLanguage) Languages.find("mariadb").orElseThrow(), "FIXSHELF_MARIADB");
    }

    @Override
    Optional<Path> program() {
        return PrivateServer.find("mariadbd", FOLDERS);
    }

    private static Path installer(Path program) {
        return PrivateServer.find("mariadb-install-db", List.of(Path.of("/usr/bin"), Path.of("/usr/local/bin")))
                .orElse(program.resolveSibling("mariadb-install-db"));
    }

    @Override
    String addressForm() {
        return "jdbc:mariadb://host/db?user=…";
    }

    @Override
    PrivateServer prepare() throws IOException {
        return PrivateServer.prepare("mariadb", "mysql");
    }

    @Override
    String start(PrivateServer server, Path program) throws IOException {
        String data = server.folder().resolve("data").toString();
        server.run(List.of(
                installer(program).toString(),
                "--no-defaults",
                "--datadir=" + data,
                "--auth-root-authentication-method=socket",
                "--skip-test-db"));
        Path users = server.write(
                "users.sql",
                "CREATE USER fixshelf@'127.0.0.1' IDENTIFIED BY '" + server.password() + "';\n"
                        + "CREATE DATABASE fixshelf_check;\n"
                        + "GRANT ALL ON fixshelf_check.* TO fixshelf@'127.0.0.1';\n"
                        // Nobody else has an account: the ones that are made with every server have no password.
                        + "DELETE FROM mysql.global_priv WHERE User NOT IN ('fixshelf', 'mariadb.sys');\n"
                        + "FLUSH PRIVILEGES;\n");
        Path files = Files.createDirectory(server.folder().resolve("files"));
        server.serve(List.of(
                program.toString(),
                "--no-defaults",
                "--datadir=" + data,
                "--port=" + server.port(),
                "--socket=" + server.folder().resolve("socket"),
                "--bind-address=127.0.0.1",
                "--skip-name-resolve",
                "--secure-file-priv=" + files,
                "--skip-local-infile",
                "--max-allowed-packet=256M",
                "--innodb-flush-log-at-trx-commit=0",
                "--character-set-server=utf8mb4",
                "--init-file=" + users));
        return "jdbc:mariadb://127.0.0.1:" + server.port() + "/fixshelf_check?sslMode=disable&user=fixshelf&password="
                + server.password();
    }

    @Override
    void begin(Statement statement) throws SQLException {
        statement.execute("SET max_statement_time = " + QUERY_SECONDS);
    }

    @Override
    Presence look(Connection connection) throws SQLException {
        return new Presence.Here(first(connection, "SELECT version()").split("-")[0]);
    }
}
