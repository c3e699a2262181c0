package fixshelf.render;

/// Unicode's simple mappings between small and capital letters beyond ASCII, as texts that run side by side: the
/// character at a place of the first becomes the one at the same place of the second.
public final class CaseMaps {
    private final String lower;
    private final String upper;
    private final String capitals;
    private final String smalls;

    public CaseMaps() {
        StringBuilder[] maps = {new StringBuilder(), new StringBuilder(), new StringBuilder(), new StringBuilder()};
        for (int c = 128; c < 0x20000; c++) {
            add(maps[0], maps[1], c, Character.toUpperCase(c));
            add(maps[2], maps[3], c, Character.toLowerCase(c));
        }
        lower = maps[0].toString();
        upper = maps[1].toString();
        capitals = maps[2].toString();
        smalls = maps[3].toString();
    }

    private static void add(StringBuilder from, StringBuilder to, int was, int is) {
        if (was != is) {
            from.appendCodePoint(was);
            to.appendCodePoint(is);
        }
    }

    /// Characters that have a capital.
    public String lower() {
        return lower;
    }

    /// The capitals of [#lower].
    public String upper() {
        return upper;
    }

    /// Characters that have a small form.
    public String capitals() {
        return capitals;
    }

    /// The small forms of [#capitals].
    public String smalls() {
        return smalls;
    }
}
