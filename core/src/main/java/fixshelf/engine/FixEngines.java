package fixshelf.engine;

import fixshelf.render.Language;
import fixshelf.render.Languages;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/// The engines that can run fixes, in the order of the languages.
public final class FixEngines {
    private static final List<FixEngine> RUN = List.of(
            new DuckEngine(),
            new PostgresEngine(),
            new MariaDbEngine(),
            new SqliteEngine(),
            new SparkEngine(),
            new PandasEngine(),
            new REngine());

    /// Those that run here, then those of languages that are only written.
    public static final List<FixEngine> ALL = Stream.concat(
                    RUN.stream(),
                    Languages.ALL.stream().filter(l -> !l.isRunHere()).map(DocumentedEngine::new))
            .toList();

    private FixEngines() {}

    public static Optional<FixEngine> of(Language language) {
        return ALL.stream().filter(e -> e.language().id().equals(language.id())).findFirst();
    }
}
