package fixshelf.profile;

import java.util.Locale;

/// Writes a drawing as SVG, for the light or the dark sheet.
public final class SvgDrawing {
    public static final int WIDTH = 640;
    public static final int HEIGHT = 240;
    private static final int EDGE = 20;
    private static final int TOP = 48;
    private static final int BOTTOM = 36;
    private static final double GAP = 0.16;

    private SvgDrawing() {}

    /// The colours of a sheet.
    public record Sheet(String paper, String ink, String soft, String marked) {
        public static final Sheet LIGHT = new Sheet("#fefdf8", "#20242c", "#6b6658", "#8a5a0b");
        public static final Sheet DARK = new Sheet("#1d1f24", "#ece7da", "#a49d8b", "#e0a94a");
    }

    /// The text of an SVG file.
    public static String write(Drawing drawing, boolean dark) {
        Sheet sheet = dark ? Sheet.DARK : Sheet.LIGHT;
        StringBuilder out = new StringBuilder();
        out.append(String.format(
                Locale.ROOT,
                "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%1$d\" height=\"%2$d\" viewBox=\"0 0 %1$d %2$d\" font-family=\"sans-serif\" font-size=\"13\">%n",
                WIDTH,
                HEIGHT));
        out.append("<rect width=\"100%\" height=\"100%\" fill=\"")
                .append(sheet.paper())
                .append("\"/>\n");
        text(out, EDGE, 26, "start", sheet.ink(), drawing.title());
        double width = (double) (WIDTH - 2 * EDGE) / Math.max(1, drawing.bars().size());
        double room = HEIGHT - TOP - BOTTOM;
        double highest = drawing.highest();
        for (int i = 0; i < drawing.bars().size(); i++) {
            Drawing.Bar bar = drawing.bars().get(i);
            double height = highest == 0 ? 0 : bar.rows() / highest * room;
            out.append(String.format(
                    Locale.ROOT,
                    "<rect x=\"%.1f\" y=\"%.1f\" width=\"%.1f\" height=\"%.1f\" fill=\"%s\"><title>%s</title></rect>%n",
                    EDGE + (i + GAP / 2) * width,
                    TOP + room - height,
                    width * (1 - GAP),
                    height,
                    bar.marked() ? sheet.marked() : sheet.soft(),
                    escaped(bar.label())));
        }
        out.append(String.format(
                Locale.ROOT,
                "<line x1=\"%d\" y1=\"%2$.1f\" x2=\"%3$d\" y2=\"%2$.1f\" stroke=\"%4$s\"/>%n",
                EDGE,
                TOP + room,
                WIDTH - EDGE,
                sheet.ink()));
        text(out, EDGE, HEIGHT - 14, "start", sheet.ink(), drawing.from());
        text(out, WIDTH - EDGE, HEIGHT - 14, "end", sheet.ink(), drawing.to());
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
