package fixshelf.cli;

import fixshelf.profile.Drawing;
import fixshelf.profile.SvgDrawing;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;

/// Writes a drawing as PNG, as it is written as SVG, with two pixels for each of its units.
public final class PngDrawing {
    private static final int SCALE = 2;
    private static final int EDGE = 20;
    private static final int TOP = 48;
    private static final int BOTTOM = 36;
    private static final double GAP = 0.16;

    private PngDrawing() {}

    /// The bytes of a PNG file.
    public static byte[] write(Drawing drawing, boolean dark) {
        SvgDrawing.Sheet sheet = dark ? SvgDrawing.Sheet.DARK : SvgDrawing.Sheet.LIGHT;
        BufferedImage image =
                new BufferedImage(SCALE * SvgDrawing.WIDTH, SCALE * SvgDrawing.HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D out = image.createGraphics();
        out.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        out.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        out.scale(SCALE, SCALE);
        out.setColor(Color.decode(sheet.paper()));
        out.fillRect(0, 0, SvgDrawing.WIDTH, SvgDrawing.HEIGHT);
        bars(out, drawing, sheet);
        out.setColor(Color.decode(sheet.ink()));
        out.setFont(new Font(Font.SANS_SERIF, Font.PLAIN, 13));
        out.drawString(drawing.title(), EDGE, 26);
        out.drawString(drawing.from(), EDGE, SvgDrawing.HEIGHT - 14);
        int width = out.getFontMetrics().stringWidth(drawing.to());
        out.drawString(drawing.to(), SvgDrawing.WIDTH - EDGE - width, SvgDrawing.HEIGHT - 14);
        out.dispose();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    private static void bars(Graphics2D out, Drawing drawing, SvgDrawing.Sheet sheet) {
        double width = (double) (SvgDrawing.WIDTH - 2 * EDGE)
                / Math.max(1, drawing.bars().size());
        double room = SvgDrawing.HEIGHT - TOP - BOTTOM;
        double highest = drawing.highest();
        for (int i = 0; i < drawing.bars().size(); i++) {
            Drawing.Bar bar = drawing.bars().get(i);
            double height = highest <= 0 ? 0 : Math.max(0, bar.rows() / highest * room);
            out.setColor(Color.decode(bar.marked() ? sheet.marked() : sheet.soft()));
            out.fill(new Rectangle2D.Double(
                    EDGE + (i + GAP / 2) * width, TOP + room - height, width * (1 - GAP), height));
        }
        out.setColor(Color.decode(sheet.ink()));
        out.fill(new Rectangle2D.Double(EDGE, TOP + room, SvgDrawing.WIDTH - 2 * EDGE, 1));
    }
}
