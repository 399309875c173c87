namespace CalmQuill.Core.Papers.Designs;

/// <summary>Papers with places for certain things.</summary>
internal static class Forms
{
    private const string Group = "Forms";
    private const int FrameWide = 16,
        FrameHigh = 9;

    public static readonly PaperDesign[] All =
    [
        new("meeting", "Meeting notes", Group, 710, LayMeeting) { HasWords = true },
        new("lab", "Lab page", Group, 500, LayLab) { SpacingWords = "Squares", HasWords = true },
        new("questions", "Five questions and how", Group, 710, LayQuestions) { HasWords = true },
        new("flow", "Flow of steps", Group, 710, LayFlow)
        {
            SpacingWords = "",
            CountWords = "Steps",
            UsualCount = 5,
            MostCount = 12,
        },
        new("storyboard", "Storyboard", Group, 640, LayStoryboard)
        {
            CountWords = "Frames",
            UsualCount = 6,
            MostCount = 24,
        },
        new("habits", "Habits and progress", Group, 640, LayHabits)
        {
            SpacingWords = "Rows",
            CountWords = "Habits",
            UsualCount = 12,
            MostCount = 30,
            HasWords = true,
        },
        new("repair", "Repair sheet", Group, 710, LayRepair) { HasWords = true },
    ];

    private static void LayMeeting(PaperPen pen)
    {
        float left = pen.Side,
            right = pen.Width - pen.Side,
            third = (right - left) / 3,
            y = pen.Side * 1.4f;
        pen.Field("About", left, left + third * 2 - 300, y);
        pen.Field("Day", left + third * 2, right, y);
        pen.Field("Here", left, right, y + pen.Spacing * 1.4f);
        float top = y + pen.Spacing * 3,
            todo = pen.Height * 0.74f,
            split = left + (right - left) * 0.66f;
        pen.Part("What was said", left, top, split - 300);
        pen.Lines(top + pen.Spacing * 1.4f, todo - pen.Spacing, left, split - 300);
        pen.Part("What was decided", split, top, right);
        pen.Lines(top + pen.Spacing * 1.4f, todo - pen.Spacing, split, right);
        pen.Part("Who does what, by when", left, todo, right);
        for (var line = todo + pen.Spacing * 1.5f; line < pen.Height - pen.Side / 2f; line += pen.Spacing)
        {
            pen.Horizontal(line, left + 600, right);
            pen.Box(left, line - 400, 360, 360);
        }
    }

    private static void LayLab(PaperPen pen)
    {
        float left = pen.Side,
            right = pen.Width - pen.Side,
            y = pen.Side * 1.3f,
            column = left + (right - left) * 0.72f,
            foot = pen.Height - pen.Side * 1.6f;
        pen.Field("Question", left, column - 300, y);
        pen.Field("No.", column, right, y);
        pen.Field("Set-up", left, column - 300, y + 900);
        pen.Field("Day", column, right, y + 900);
        var top = y + 1700;
        var rows = (int)((foot - 800 - top) / pen.Spacing);
        var columns = (int)((column - 200 - left) / pen.Spacing);
        for (var i = 0; i <= rows; i++)
            pen.Horizontal(top + i * pen.Spacing, left, left + columns * pen.Spacing);
        for (var i = 0; i <= columns; i++)
            pen.Vertical(left + i * pen.Spacing, top, top + rows * pen.Spacing);
        pen.Words("Seen", column, top + 300, 330);
        for (var line = top + 1100; line < top + rows * pen.Spacing; line += 710)
            pen.Horizontal(line, column, right);
        pen.Field("It follows", left, column - 300, foot);
        pen.Field("Checked", column, right, foot);
    }

    private static void LayQuestions(PaperPen pen)
    {
        string[] questions = ["Who", "What", "When", "Where", "Why", "How"];
        float left = pen.Side,
            right = pen.Width - pen.Side,
            top = pen.Paper.Head ?? pen.Side * 2f,
            gap = 500,
            width = (right - left - gap) / 2;
        var height = (pen.Height - top - pen.Side) / 3;
        for (var i = 0; i < questions.Length; i++)
        {
            float x = left + i % 2 * (width + gap),
                y = top + i / 2 * height;
            pen.Part(questions[i], x, y, x + width);
            pen.Lines(y + pen.Spacing * 1.5f, y + height - pen.Spacing * 0.8f, x, x + width);
        }
    }

    private static void LayFlow(PaperPen pen)
    {
        float left = pen.Width * 0.18f,
            width = pen.Width * 0.64f,
            top = pen.Paper.Head ?? pen.Side * 2f,
            arrow = Math.Min(900, pen.Height / 4f / pen.Count);
        var height = (pen.Height - top - pen.Side - arrow * (pen.Count - 1)) / pen.Count;
        for (var i = 0; i < pen.Count; i++)
        {
            var y = top + i * (height + arrow);
            pen.Box(left, y, width, height);
            pen.Words((i + 1).ToString(System.Globalization.CultureInfo.InvariantCulture), left - 300, y + height / 2 + 150, 450, 1);
            if (i + 1 == pen.Count)
                continue;
            float x = left + width / 2,
                head = arrow * 0.28f,
                tip = y + height + arrow * 0.9f;
            pen.Vertical(x, y + height + arrow * 0.1f, tip, pen.Strong);
            pen.Slope(x - head, tip - head, x, tip);
            pen.Slope(x + head, tip - head, x, tip);
        }
    }

    private static void LayStoryboard(PaperPen pen)
    {
        var columns =
            pen.Count <= 3 ? 1
            : pen.Count <= 8 ? 2
            : 3;
        var rows = (pen.Count + columns - 1) / columns;
        float gap = 600,
            top = pen.Paper.Head ?? pen.Side * 1.6f,
            room = (pen.Height - top - pen.Side) / rows;
        var width = Math.Min((pen.Width - 2 * pen.Side - gap * (columns - 1)) / columns, (room - pen.Spacing * 2) * FrameWide / FrameHigh);
        if (width < 300)
            return;
        var left = (pen.Width - width * columns - gap * (columns - 1)) / 2;
        for (var i = 0; i < pen.Count; i++)
        {
            float x = left + i % columns * (width + gap),
                y = top + i / columns * room,
                frame = width * FrameHigh / FrameWide;
            pen.Box(x, y, width, frame);
            pen.Lines(y + frame + pen.Spacing, y + room - 250, x, x + width);
        }
    }

    private static void LayHabits(PaperPen pen)
    {
        const int days = 31;
        float left = pen.Side,
            right = pen.Width - pen.Side,
            names = left + (right - left) * 0.26f,
            day = (right - names) / days,
            top = (pen.Paper.Head ?? pen.Side * 2f) + 500;
        pen.Field("Month", left, names + (right - names) * 0.4f, top - 1000);
        for (var i = 0; i < days; i++)
            pen.Words(
                (i + 1).ToString(System.Globalization.CultureInfo.InvariantCulture),
                names + (i + 0.5f) * day,
                top - 120,
                Math.Min(220, day * 0.6f),
                0.5f
            );
        for (var row = 0; row <= pen.Count; row++)
            pen.Horizontal(top + row * pen.Spacing, left, right);
        for (var i = 0; i <= days; i++)
            pen.Vertical(names + i * day, top, top + pen.Count * pen.Spacing, i % 7 == 0 ? pen.Strong : pen.Rule);
        var scale = top + (pen.Count + 2.5f) * pen.Spacing;
        var bottom = pen.Height - pen.Side;
        if (bottom - scale < 2000)
            return;
        pen.Part("Progress", left, scale - pen.Spacing, right);
        for (var i = 0; i <= 10; i++)
            pen.Horizontal(scale + (bottom - scale) * i / 10, names, right);
        for (var i = 0; i <= days; i++)
            pen.Vertical(names + i * day, scale, bottom);
    }

    private static void LayRepair(PaperPen pen)
    {
        float left = pen.Side,
            right = pen.Width - pen.Side,
            half = (left + right) / 2,
            y = pen.Side * 1.5f,
            step = pen.Spacing * 1.3f;
        pen.Words("Repair sheet", left, y, 520);
        pen.Field("No.", half + 1500, right, y);
        pen.Field("Clock", left, half - 300, y + step);
        pen.Field("Brought by", half, right, y + step);
        pen.Field("Says", left, right, y + 2 * step);
        var top = y + 3.6f * step;
        pen.Part("Found", left, top, half - 300);
        pen.Lines(top + pen.Spacing * 1.5f, top + pen.Spacing * 8, left, half - 300);
        pen.Part("Done", half, top, right);
        for (var i = 0; i < 7; i++)
        {
            var line = top + pen.Spacing * (1.5f + i);
            if (line > pen.Height - pen.Side)
                break;
            pen.Box(half, line - 380, 340, 340);
            pen.Horizontal(line, half + 550, right);
        }

        var table = top + pen.Spacing * 9.5f;
        string[] measures = ["Pivots, mm", "End shake, mm", "Beat error, ms", "Arc, degrees", "Gain or loss, s a day"];
        pen.Words("before", half + (right - half) * 0.25f, table - 150, 280, 0.5f);
        pen.Words("after", half + (right - half) * 0.75f, table - 150, 280, 0.5f);
        for (var i = 0; i <= measures.Length; i++)
        {
            if (i < measures.Length)
                pen.Words(measures[i], left, table + (i + 0.7f) * pen.Spacing * 1.1f, 300);
            pen.Horizontal(table + i * pen.Spacing * 1.1f, left, right, pen.Strong);
        }

        pen.Vertical(half, table, table + measures.Length * pen.Spacing * 1.1f, pen.Strong);
        pen.Vertical((half + right) / 2, table, table + measures.Length * pen.Spacing * 1.1f, pen.Strong);
        var drawing = table + (measures.Length + 1.6f) * pen.Spacing * 1.1f;
        if (pen.Height - pen.Side - drawing < 2000)
            return;
        pen.Part("Drawing", left, drawing, right);
        for (var row = drawing + 630; row < pen.Height - pen.Side; row += 500)
            pen.Dots(row, left, right, 500);
    }
}
