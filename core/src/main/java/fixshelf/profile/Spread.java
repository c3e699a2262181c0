package fixshelf.profile;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/// Numbers with how many rows hold them: the least, the greatest, and how they are spread between.
final class Spread {
    static final int BINS = 20;

    private static final int MOST = 1_000_000;

    private double[] numbers = new double[64];
    private long[] rows = new long[64];
    private int size;
    private double least = Double.POSITIVE_INFINITY;
    private double greatest = Double.NEGATIVE_INFINITY;
    private String leastText = "";
    private String greatestText = "";

    /// Adds a number with the text that it was written as; what is no number is passed over.
    void add(double number, String text, long n) {
        if (!Double.isFinite(number)) {
            return;
        }
        if (number < least) {
            least = number;
            leastText = text;
        }
        if (number > greatest) {
            greatest = number;
            greatestText = text;
        }
        if (size == MOST) {
            return;
        }
        if (size == numbers.length) {
            numbers = Arrays.copyOf(numbers, size * 2);
            rows = Arrays.copyOf(rows, size * 2);
        }
        numbers[size] = number;
        rows[size++] = n;
    }

    boolean isEmpty() {
        return size == 0;
    }

    double least() {
        return least;
    }

    double greatest() {
        return greatest;
    }

    String leastText() {
        return leastText;
    }

    String greatestText() {
        return greatestText;
    }

    /// How many rows fall into each of [#BINS] equal parts between the least and the greatest; none without numbers.
    List<Long> bins() {
        if (size == 0) {
            return List.of();
        }
        long[] bins = new long[BINS];
        double width = greatest - least;
        for (int i = 0; i < size; i++) {
            int bin = width == 0 ? 0 : (int) Math.min(BINS - 1, (numbers[i] - least) / width * BINS);
            bins[bin] += rows[i];
        }
        List<Long> all = new ArrayList<>();
        Arrays.stream(bins).forEach(all::add);
        return all;
    }
}
