package fixshelf.engine;

import fixshelf.render.Language;
import java.util.List;
import java.util.Optional;

/// The engines that can run fixes, in the order of the languages.
public final class FixEngines {
    public static final List<FixEngine> ALL = List.of(
            new DuckEngine(),
            new PostgresEngine(),
            new MariaDbEngine(),
            new SqliteEngine(),
            new SparkEngine(),
            new PandasEngine(),
            new REngine());

    private FixEngines() {}

    public static Optional<FixEngine> of(Language language) {
        return ALL.stream().filter(e -> e.language().id().equals(language.id())).findFirst();
    }
}
