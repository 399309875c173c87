namespace CalmQuill.Core.Pictures;

/// <summary>
/// Makes the paper in a picture clear, so that what was drawn on it lies on the sheet like ink: an adaptive threshold with soft edges. In each part
/// of the picture the paper is what is lighter than most; how much darker than it a dot is says how much of it is ink.
/// </summary>
/// <remarks>
/// The paper's colour is taken in square parts, as the mean of the lighter dots of each, spread over parts that ink fills, smoothed, and read between
/// the parts' middles; so shadows and yellowed paper go as well. The method is that of background normalisation before thresholding (after Bradley
/// and Roth, 2007, who take the mean of all dots around). Work is done in bands of rows, so that it can be shown and given up: first all of them are
/// looked at, then all are cleared.
/// </remarks>
public sealed class PaperClearing
{
    /// <summary>A part of the picture is so many dots wide at least, and there are at most so many along the longer side.</summary>
    private const int LeastPart = 8,
        MostParts = 96;

    /// <summary>Of each part the lightest quarter is paper.</summary>
    private const int Lightest = 4;

    /// <summary>Up to this share of darkness all is paper and from that on all is ink; by strength from 0 to 100.</summary>
    private static (double Paper, double Ink) Bounds(int strength) => (0.03 + strength * 0.0032, 0.16 + strength * 0.0052);

    private readonly int width,
        part,
        across,
        down;

    /// <summary>Between two parts there are so many steps.</summary>
    private const int Part = 256;

    /// <summary>So much a colour counts that is as light as the paper.</summary>
    private const double Coloured = 0.8;

    private readonly int[] columns,
        shares,
        ground;
    private readonly int[] counts;
    private readonly int[] light;
    private readonly double[] paper;

    /// <param name="width">The picture's width in dots.</param>
    /// <param name="height">Its height.</param>
    public PaperClearing(int width, int height)
    {
        this.width = width;
        part = Math.Max(LeastPart, (Math.Max(width, height) + MostParts - 1) / MostParts);
        (across, down) = ((width + part - 1) / part, (height + part - 1) / part);
        // Of each part how often each lightness occurs, and the sum of each channel there.
        counts = new int[across * down * Steps];
        light = new int[across * down * Steps * 3];
        paper = new double[across * down * 3];
        // Of each dot of a row the part whose middle lies left of it, and how far it is from there to the next.
        (columns, shares, ground) = (new int[width], new int[width], new int[across * 3]);
        for (var x = 0; x < width; x++)
        {
            var column = Math.Clamp((x + 0.5) / part - 0.5, 0, across - 1);
            (columns[x], shares[x]) = ((int)column * 3, (int)((column - (int)column) * Part));
        }
    }

    /// <summary>Lightness is counted in so many steps.</summary>
    private const int Steps = 32;

    /// <summary>Looks at some rows.</summary>
    /// <param name="dots">Red, green, blue and alpha of each dot.</param>
    /// <param name="from">Which row of the picture the first of them is.</param>
    public void Look(ReadOnlySpan<byte> dots, int from)
    {
        for (var row = 0; row < dots.Length / 4 / width; row++)
        {
            var cells = (from + row) / part * across;
            for (var x = 0; x < width; x++)
            {
                var i = (row * width + x) * 4;
                var step = (cells + x / part) * Steps + Lightness(dots[i], dots[i + 1], dots[i + 2]) * Steps / 256;
                counts[step]++;
                light[step * 3] += dots[i];
                light[step * 3 + 1] += dots[i + 1];
                light[step * 3 + 2] += dots[i + 2];
            }
        }
    }

    /// <summary>All has been looked at: works out what the paper is like everywhere.</summary>
    public void Settle()
    {
        for (var cell = 0; cell < across * down; cell++)
        {
            var all = 0;
            for (var step = 0; step < Steps; step++)
                all += counts[cell * Steps + step];
            long count = 0,
                red = 0,
                green = 0,
                blue = 0;
            for (var step = Steps - 1; step >= 0 && count * Lightest < all; step--)
            {
                var at = cell * Steps + step;
                count += counts[at];
                red += light[at * 3];
                green += light[at * 3 + 1];
                blue += light[at * 3 + 2];
            }

            (paper[cell * 3], paper[cell * 3 + 1], paper[cell * 3 + 2]) =
                count == 0 ? (255, 255, 255) : (red / (double)count, green / (double)count, blue / (double)count);
        }

        Around(lightest: true);
        Around(lightest: false);
    }

    /// <summary>Clears some rows in place; see <see cref="Look"/>.</summary>
    /// <param name="dots">Red, green, blue and alpha of each dot.</param>
    /// <param name="from">Which row of the picture the first of them is.</param>
    /// <param name="strength">How much of what is pale goes, 0 to 100: lines of a ruling from about 40 on.</param>
    public void Clear(Span<byte> dots, int from, int strength)
    {
        var (least, most) = Bounds(strength);
        for (var row = 0; row < dots.Length / 4 / width; row++)
        {
            RowOf(from + row);
            for (var x = 0; x < width; x++)
            {
                var at = (row * width + x) * 4;
                var (left, share) = (columns[x], shares[x]);
                var right = Math.Min(left + 3, ground.Length - 3);
                int red = Between(ground[left], ground[right], share),
                    green = Between(ground[left + 1], ground[right + 1], share),
                    blue = Between(ground[left + 2], ground[right + 2], share);
                int off = Math.Max(Math.Abs(dots[at] - red), Math.Max(Math.Abs(dots[at + 1] - green), Math.Abs(dots[at + 2] - blue)));
                // Most dots are paper.
                if (off < least * Math.Min(red, Math.Min(green, blue)))
                {
                    dots[at + 3] = 0;
                    continue;
                }

                var paper = Lightness(red, green, blue);
                var dark = paper <= 0 ? 0 : 1 - Lightness(dots[at], dots[at + 1], dots[at + 2]) / (double)paper;
                // Colour is ink as well, also where it is as light as the paper.
                var ink = Math.Clamp((Math.Max(dark, off * Coloured / 255) - least) / (most - least), 0, 1);
                ink = ink * ink * (3 - 2 * ink);
                dots[at + 3] = (byte)Math.Round(dots[at + 3] * ink);
                if (ink <= 0)
                    continue;
                dots[at] = Alone(dots[at], red, ink);
                dots[at + 1] = Alone(dots[at + 1], green, ink);
                dots[at + 2] = Alone(dots[at + 2], blue, ink);
            }
        }
    }

    /// <summary>What of a channel is left when the paper that shines through it is taken out.</summary>
    private static byte Alone(byte seen, int paper, double ink) => (byte)Math.Clamp(Math.Round((seen - (1 - ink) * paper) / ink), 0, 255);

    private static int Between(int one, int other, int share) => (one * (Part - share) + other * share) / Part;

    /// <summary>What the paper is like along a row, in the middle of each part: between those above and below.</summary>
    private void RowOf(int y)
    {
        var row = Math.Clamp((y + 0.5) / part - 0.5, 0, down - 1);
        var top = (int)row;
        var (bottom, dy) = (Math.Min(top + 1, down - 1), row - top);
        for (var i = 0; i < ground.Length; i++)
            ground[i] = (int)Math.Round(paper[top * ground.Length + i] * (1 - dy) + paper[bottom * ground.Length + i] * dy);
    }

    /// <summary>Makes each part anew of those around it, itself among them.</summary>
    /// <param name="lightest">Whether of the lightest of them, so that a part that ink fills has the paper beside it; else of their mean.</param>
    private void Around(bool lightest)
    {
        var before = (double[])paper.Clone();
        for (var cell = 0; cell < across * down; cell++)
        {
            int x = cell % across,
                y = cell / across,
                best = cell,
                count = 0;
            double red = 0,
                green = 0,
                blue = 0,
                highest = -1;
            for (var v = Math.Max(0, y - 1); v <= Math.Min(down - 1, y + 1); v++)
            {
                for (var u = Math.Max(0, x - 1); u <= Math.Min(across - 1, x + 1); u++)
                {
                    var other = (v * across + u) * 3;
                    count++;
                    red += before[other];
                    green += before[other + 1];
                    blue += before[other + 2];
                    var lightness = Lightness(before[other], before[other + 1], before[other + 2]);
                    if (lightness > highest)
                        (best, highest) = (other, lightness);
                }
            }

            (paper[cell * 3], paper[cell * 3 + 1], paper[cell * 3 + 2]) = lightest
                ? (before[best], before[best + 1], before[best + 2])
                : (red / count, green / count, blue / count);
        }
    }

    /// <summary>Luma of ITU-R BT.601.</summary>
    private static double Lightness(double red, double green, double blue) => 0.299 * red + 0.587 * green + 0.114 * blue;

    private static int Lightness(int red, int green, int blue) => (299 * red + 587 * green + 114 * blue) / 1000;
}
