package fixshelf.profile;

import java.util.ArrayList;
import java.util.List;

/// Where the parts of a drawing stand in a file, whatever its form, and in which colours.
///
/// @param boxes the bars
/// @param colours of the sheet
public record SavedDrawing(Drawing drawing, List<Box> boxes, Sheet colours) {
    /// How wide a file is, in its units.
    public static final int WIDTH = 640;
    /// How high it is.
    public static final int HEIGHT = 240;
    /// How far everything stays from the sides.
    public static final int EDGE = 20;
    /// Where the line of the title is.
    public static final int TITLE = 26;
    /// Where the line is on which the bars stand.
    public static final int GROUND = 204;
    /// Where the line of the words under it is.
    public static final int FOOT = 226;

    private static final int TOP = 48;
    private static final double GAP = 0.16;

    public SavedDrawing {
        boxes = List.copyOf(boxes);
    }

    /// The colours of a sheet.
    public record Sheet(String paper, String ink, String soft, String marked) {
        private static final Sheet LIGHT = new Sheet("#fefdf8", "#20242c", "#6b6658", "#8a5a0b");
        private static final Sheet DARK = new Sheet("#1d1f24", "#ece7da", "#a49d8b", "#e0a94a");
    }

    /// A bar, from its upper left corner.
    public record Box(Drawing.Bar bar, double x, double y, double width, double height) {}

    /// The colour of a bar.
    public String colour(Box box) {
        return box.bar().marked() ? colours.marked() : colours.soft();
    }

    /// A drawing for the light or the dark sheet.
    public static SavedDrawing of(Drawing drawing, boolean dark) {
        double width = (double) (WIDTH - 2 * EDGE) / Math.max(1, drawing.bars().size());
        double highest = drawing.highest();
        List<Box> boxes = new ArrayList<>();
        for (int i = 0; i < drawing.bars().size(); i++) {
            Drawing.Bar bar = drawing.bars().get(i);
            double height = highest <= 0 ? 0 : Math.max(0, bar.rows() / highest * (GROUND - TOP));
            boxes.add(new Box(bar, EDGE + (i + GAP / 2) * width, GROUND - height, width * (1 - GAP), height));
        }
        return new SavedDrawing(drawing, boxes, dark ? Sheet.DARK : Sheet.LIGHT);
    }
}
