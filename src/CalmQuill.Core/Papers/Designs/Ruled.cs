namespace CalmQuill.Core.Papers.Designs;

/// <summary>Papers to write on line by line.</summary>
internal static class Ruled
{
    private const string Group = "Lines";

    /// <summary>The margin of a legal pad: 1¼ inch (common practice).</summary>
    private const int LegalMargin = 3175;

    /// <summary>Cornell columns on a sheet of 8½ inches: a cue column of 2½ and a summary of 2 inches (common practice), in proportion on other sheets.</summary>
    private const double CueShare = 2.5 / 8.5,
        SummaryShare = 2.0 / 11;

    public static readonly PaperDesign[] All =
    [
        new("blank", "Blank", Group, 710, LayMargin)
        {
            SpacingWords = "",
            MarginWords = "Margin",
            CanBeHeaded = true,
        },
        new("ruled", "Ruled", Group, 710, LayRuled)
        {
            HasHead = true,
            MarginWords = "Margin",
            CanBeHeaded = true,
        },
        new("beside", "Lines beside", Group, 710, LayBeside)
        {
            HasHead = true,
            MarginWords = "Lines begin",
            UsualMargin = paper => paper.Width / 2,
            CanBeHeaded = true,
        },
        new("legal", "Legal pad", Group, 870, LayLegal)
        {
            Tint = 0xFAF3CFFF,
            LineTint = 0xB9C8D6FF,
            HasHead = true,
            MarginWords = "Margin",
            UsualMargin = paper => Math.Min(LegalMargin, paper.Width / 5),
            CanBeHeaded = true,
        },
        new("columns", "Columns", Group, 710, LayColumns)
        {
            CountWords = "Columns",
            UsualCount = 2,
            MostCount = 8,
            HasHead = true,
            CanBeHeaded = true,
        },
        new("cornell", "Cornell", Group, 710, LayCornell)
        {
            HasWords = true,
            HasHead = true,
            MarginWords = "Cues",
            UsualMargin = paper => (int)(paper.Width * CueShare),
            CanBeHeaded = true,
        },
        new("checklist", "Checklist", Group, 870, LayChecklist)
        {
            HasHead = true,
            MarginWords = "Margin",
            UsualMargin = _ => 1700,
            CanBeHeaded = true,
        },
    ];

    private static void LayRuled(PaperPen pen)
    {
        pen.Lines(pen.Head, pen.Height, 0, pen.Width);
        LayMargin(pen);
    }

    /// <summary>Lines to write on beside what lies at the left.</summary>
    private static void LayBeside(PaperPen pen) => pen.Lines(pen.Head, pen.Height - pen.Side / 2, pen.Margin, pen.Width - pen.Side);

    /// <summary>A line down the sheet, where one is wished.</summary>
    internal static void LayMargin(PaperPen pen)
    {
        if (pen.Margin > 0)
            pen.Vertical(pen.Margin, 0, pen.Height, pen.Accent);
    }

    private static void LayLegal(PaperPen pen)
    {
        pen.Lines(pen.Head, pen.Height, 0, pen.Width);
        var margin = pen.Margin;
        pen.Vertical(margin, 0, pen.Height, pen.Accent);
        pen.Vertical(margin + 100, 0, pen.Height, pen.Accent);
    }

    private static void LayColumns(PaperPen pen)
    {
        var gap = Math.Min(800, pen.Width / 20);
        var width = (pen.Width - gap * (pen.Count + 1f)) / pen.Count;
        for (var i = 0; i < pen.Count; i++)
        {
            var left = gap + i * (width + gap);
            pen.Lines(pen.Head, pen.Height - gap, left, left + width);
            if (i > 0)
                pen.Vertical(left - gap / 2f, pen.Head - pen.Spacing, pen.Height - gap);
        }
    }

    private static void LayCornell(PaperPen pen)
    {
        var cue = pen.Margin;
        var summary = pen.Height - (int)(Math.Min(pen.Height, pen.Paper.Height) * SummaryShare);
        pen.Lines(pen.Head, summary, cue + 300, pen.Width);
        pen.Lines(summary + pen.Spacing * 1.6f, pen.Height, 0, pen.Width);
        pen.Vertical(cue, pen.Head - pen.Spacing, summary, pen.Strong, 25);
        pen.Horizontal(summary, 0, pen.Width, pen.Strong, 25);
        pen.Horizontal(pen.Head - pen.Spacing, 0, pen.Width, pen.Strong, 25);
        pen.Words("Cues", 500, pen.Head - pen.Spacing - 150, 300);
        pen.Words("Notes", cue + 500, pen.Head - pen.Spacing - 150, 300);
        pen.Words("In short", 500, summary + 480, 300);
    }

    private static void LayChecklist(PaperPen pen)
    {
        var box = Math.Min(pen.Spacing * 0.55f, 450);
        var margin = pen.Margin;
        for (float y = pen.Head; y < pen.Height - pen.Spacing / 2f; y += pen.Spacing)
        {
            pen.Horizontal(y, margin + box + 350, pen.Width - pen.Side);
            pen.Box(margin, y - box * 1.1f, box, box);
        }
    }
}
