package fixshelf.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.sql.Connection;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/// The engines that tests run on. One that is not here is skipped with a plain message; in CI that is a failure.
public final class Engines {
    private Engines() {}

    /// All but Spark, which is asked in the module `spark`: it is built after this one.
    public static Stream<FixEngine> all() {
        return FixEngines.ALL.stream()
                .filter(e -> e.language().isRunHere() && !e.language().id().equals("spark"));
    }

    /// The engine of a language.
    public static FixEngine of(String language) {
        return FixEngines.ALL.stream()
                .filter(e -> e.language().id().equals(language))
                .findFirst()
                .orElseThrow();
    }

    /// A connection to the server of an engine, in which things may be made.
    public static Connection connection(FixEngine engine) throws Exception {
        return DriverManager.getConnection(((ServerEngine) engine).address());
    }

    /// The rows of a query in Spark, in the process that the engine keeps.
    public static List<List<Object>> sparkRows(String sql) throws Exception {
        List<List<Object>> rows = new ArrayList<>();
        ((SparkEngine) of("spark")).rows(sql).forEach(r -> rows.add(new ArrayList<>(r)));
        return rows;
    }

    /// The interpreter of an engine.
    public static String program(FixEngine engine) {
        return ((ScriptEngine) engine).program();
    }

    public static void assumeHere(FixEngine engine) {
        String why =
                engine.language().title() + " is not here: " + engine.presence().sentence();
        if (Boolean.parseBoolean(System.getenv("FIXSHELF_ALL_ENGINES"))) {
            assertThat(engine.presence().isHere()).as(why).isTrue();
        }
        assumeTrue(engine.presence().isHere(), why);
    }
}
