package fixshelf.render;

import fixshelf.type.Visible;
import java.util.Locale;

/// A text constant with escapes after a backslash, in which everything can be seen.
///
/// @param quote the sign around it
/// @param near how a character that cannot be seen is written, up to U+FFFF
/// @param far how it is written above
public record Quoted(char quote, String near, String far) {

    public String write(String text) {
        StringBuilder out = new StringBuilder().append(quote);
        text.codePoints().forEach(c -> {
            switch (c) {
                case '\\' -> out.append("\\\\");
                case '\n' -> out.append("\\n");
                case '\t' -> out.append("\\t");
                case '\r' -> out.append("\\r");
                case ' ' -> out.append(' ');
                default -> {
                    if (c == quote) {
                        out.append('\\').append(quote);
                    } else if (Visible.isInvisible(c)) {
                        out.append(String.format(Locale.ROOT, c > 0xFFFF ? far : near, c));
                    } else {
                        out.appendCodePoint(c);
                    }
                }
            }
        });
        return out.append(quote).toString();
    }
}
