package fixshelf.desktop.parts;

import fixshelf.profile.Drawing;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.Region;

/// Bars as a drawing describes them, drawn as regions, so that the style sheet gives them their colours.
public final class DrawingView extends Region {
    private static final double GAP = 0.16;

    private Drawing drawing;

    public DrawingView(Drawing drawing, double height) {
        this.drawing = drawing;
        getStyleClass().add("drawing");
        setMinHeight(height);
        setPrefHeight(height);
        show(drawing);
    }

    void show(Drawing shown) {
        drawing = shown;
        getChildren().clear();
        for (Drawing.Bar bar : shown.bars()) {
            Region region = new Region();
            region.getStyleClass().add(bar.marked() ? "bar-marked" : "bar");
            Tooltip.install(region, new Tooltip(bar.label()));
            getChildren().add(region);
        }
        setAccessibleText(shown.title());
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        double width = getWidth() / Math.max(1, drawing.bars().size());
        double highest = drawing.highest();
        for (int i = 0; i < getChildren().size(); i++) {
            double rows = drawing.bars().get(i).rows();
            double height = highest == 0 ? 0 : Math.max(rows > 0 ? 1 : 0, rows / highest * (getHeight() - 1));
            getChildren()
                    .get(i)
                    .resizeRelocate((i + GAP / 2) * width, getHeight() - 1 - height, width * (1 - GAP), height);
        }
    }
}
