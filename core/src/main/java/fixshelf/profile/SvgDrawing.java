package fixshelf.profile;

import java.util.Locale;

/// Writes a drawing as SVG.
public final class SvgDrawing {
    private SvgDrawing() {}

    /// The text of an SVG file.
    public static String write(Drawing drawing, boolean dark) {
        SavedDrawing saved = SavedDrawing.of(drawing, dark);
        String ink = saved.colours().ink();
        StringBuilder out = new StringBuilder();
        out.append(String.format(
                Locale.ROOT,
                "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%1$d\" height=\"%2$d\" viewBox=\"0 0 %1$d %2$d\" font-family=\"sans-serif\" font-size=\"13\">%n",
                SavedDrawing.WIDTH,
                SavedDrawing.HEIGHT));
        out.append("<rect width=\"100%\" height=\"100%\" fill=\"")
                .append(saved.colours().paper())
                .append("\"/>\n");
        text(out, SavedDrawing.EDGE, SavedDrawing.TITLE, "start", ink, drawing.title());
        for (SavedDrawing.Box box : saved.boxes()) {
            out.append(String.format(
                    Locale.ROOT,
                    "<rect x=\"%.1f\" y=\"%.1f\" width=\"%.1f\" height=\"%.1f\" fill=\"%s\"><title>%s</title></rect>%n",
                    box.x(),
                    box.y(),
                    box.width(),
                    box.height(),
                    saved.colour(box),
                    escaped(box.bar().label())));
        }
        out.append(String.format(
                Locale.ROOT,
                "<line x1=\"%1$d\" y1=\"%2$d\" x2=\"%3$d\" y2=\"%2$d\" stroke=\"%4$s\"/>%n",
                SavedDrawing.EDGE,
                SavedDrawing.GROUND,
                SavedDrawing.WIDTH - SavedDrawing.EDGE,
                ink));
        text(out, SavedDrawing.EDGE, SavedDrawing.FOOT, "start", ink, drawing.from());
        text(out, SavedDrawing.WIDTH - SavedDrawing.EDGE, SavedDrawing.FOOT, "end", ink, drawing.to());
        return out.append("</svg>\n").toString();
    }

    private static void text(StringBuilder out, int x, int y, String anchor, String colour, String text) {
        out.append(String.format(
                Locale.ROOT,
                "<text x=\"%d\" y=\"%d\" text-anchor=\"%s\" fill=\"%s\">%s</text>%n",
                x,
                y,
                anchor,
                colour,
                escaped(text.length() > 60 ? text.substring(0, 59) + "…" : text)));
    }

    /// What XML can hold; anything else becomes U+FFFD.
    private static String escaped(String text) {
        StringBuilder out = new StringBuilder();
        text.codePoints().forEach(c -> {
            switch (c) {
                case '&' -> out.append("&amp;");
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '"' -> out.append("&quot;");
                default -> {
                    boolean held = c == '\t'
                            || c == '\n'
                            || c == '\r'
                            || c >= 0x20 && c <= 0xD7FF
                            || c >= 0xE000 && c <= 0xFFFD
                            || c >= 0x10000;
                    out.appendCodePoint(held ? c : 0xFFFD);
                }
            }
        });
        return out.toString();
    }
}
