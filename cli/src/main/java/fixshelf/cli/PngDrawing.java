package fixshelf.cli;

import fixshelf.profile.Drawing;
import fixshelf.profile.SavedDrawing;
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

    private PngDrawing() {}

    /// The bytes of a PNG file.
    public static byte[] write(Drawing drawing, boolean dark) {
        SavedDrawing saved = SavedDrawing.of(drawing, dark);
        BufferedImage image =
                new BufferedImage(SCALE * SavedDrawing.WIDTH, SCALE * SavedDrawing.HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D out = image.createGraphics();
        out.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        out.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        out.scale(SCALE, SCALE);
        out.setColor(Color.decode(saved.colours().paper()));
        out.fillRect(0, 0, SavedDrawing.WIDTH, SavedDrawing.HEIGHT);
        for (SavedDrawing.Box box : saved.boxes()) {
            out.setColor(Color.decode(saved.colour(box)));
            out.fill(new Rectangle2D.Double(box.x(), box.y(), box.width(), box.height()));
        }
        int right = SavedDrawing.WIDTH - SavedDrawing.EDGE;
        out.setColor(Color.decode(saved.colours().ink()));
        out.fill(new Rectangle2D.Double(SavedDrawing.EDGE, SavedDrawing.GROUND, right - SavedDrawing.EDGE, 1));
        out.setFont(new Font(Font.SANS_SERIF, Font.PLAIN, 13));
        out.drawString(drawing.title(), SavedDrawing.EDGE, SavedDrawing.TITLE);
        out.drawString(drawing.from(), SavedDrawing.EDGE, SavedDrawing.FOOT);
        out.drawString(drawing.to(), right - out.getFontMetrics().stringWidth(drawing.to()), SavedDrawing.FOOT);
        out.dispose();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }
}
