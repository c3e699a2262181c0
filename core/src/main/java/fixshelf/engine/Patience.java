package fixshelf.engine;

import org.jspecify.annotations.Nullable;

/// How long engines are waited for. On a busy or slow machine `FIXSHELF_PATIENCE` multiplies all of it: 1 to 100, 1
/// when it is not set.
final class Patience {
    private static final int TIMES = times(System.getenv("FIXSHELF_PATIENCE"));

    private Patience() {}

    /// Seconds, as many times as the user says.
    static int seconds(int usual) {
        return usual * TIMES;
    }

    /// What is no number from 1 to 100 counts as 1.
    static int times(@Nullable String said) {
        return said != null && said.strip().matches("[1-9][0-9]?|100") ? Integer.parseInt(said.strip()) : 1;
    }
}
