package fixshelf.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.Statement;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// A database server as a page names it; skipped where it is not here.
///
/// @param host with its port
/// @param read the address that a page has
/// @param jdbc the address that a driver takes, with user and password
public record TestServer(FixEngine engine, String host, String read, String user, String password, String jdbc) {
    private static final Pattern ADDRESS =
            Pattern.compile("jdbc:([a-z]+)://([^/]+)/([^?]+)\\?.*user=([^&]+)&password=(.*)");

    public static TestServer of(String language) throws Exception {
        FixEngine engine = Engines.of(language);
        Engines.assumeHere(engine);
        Matcher found = ADDRESS.matcher(((ServerEngine) engine).address());
        assertThat(found.matches()).isTrue();
        return new TestServer(
                engine,
                found.group(2),
                found.group(1) + "://" + found.group(2) + "/" + found.group(3),
                found.group(4),
                found.group(5),
                found.group());
    }

    public String language() {
        return engine.language().id();
    }

    public void run(String... statements) throws Exception {
        try (Connection connection = Engines.connection(engine);
                Statement statement = connection.createStatement()) {
            for (String each : statements) {
                statement.execute(each);
            }
        }
    }
}
