using CalmQuill.Core.Plots;

namespace CalmQuill.Core.Tables;

/// <summary>What of a table can be plotted.</summary>
/// <param name="Points">What stands in two columns, row by row.</param>
/// <param name="Axes">What stands above them, each on a line.</param>
public sealed record TablePlot(IReadOnlyList<(double X, double Y)> Points, string Axes)
{
    /// <summary>The first two columns of numbers; null where there are not two, or no row has both.</summary>
    public static TablePlot? Of(TableText text)
    {
        if (text.IsEmpty)
            return null;
        var columns = Enumerable.Range(0, text.Columns.Count).Where(IsOfNumbers).Take(2).ToList();
        if (columns.Count < 2)
            return null;
        var points = new List<(double, double)>();
        for (var row = 0; row < text.Rows.Count && points.Count < PlotData.MostPoints; row++)
        {
            if (NumberAt(row, columns[0]) is { } x && NumberAt(row, columns[1]) is { } y && IsPlotted(x) && IsPlotted(y))
                points.Add(((double)x.Value, (double)y.Value));
        }

        return points.Count == 0 ? null : new TablePlot(points, string.Join('\n', columns.Select(NameOf)));

        // Below its name stand numbers, and nothing else.
        bool IsOfNumbers(int column)
        {
            var below = Enumerable.Range(1, text.Rows.Count - 1).Where(row => text[row, column].HasLetters).ToList();
            return below.Count > 0 && below.TrueForAll(row => NumberAt(row, column) is not null);
        }

        TableNumber? NumberAt(int row, int column) => TableNumber.Read(text[row, column].Text);

        string NameOf(int column)
        {
            var words = text[0, column].Text.ReplaceLineEndings(" ");
            return TableNumber.Read(words) is not null ? "" : words[..Math.Min(words.Length, MostName)];
        }

        static bool IsPlotted(TableNumber number) => Math.Abs(number.Value) <= (decimal)PlotRange.Most;
    }

    private const int MostName = 60;
}
