using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Copying, making room, even lines, scratching out, retracing, the loupe's steps.</summary>
public sealed class ChangingTests : OnPage
{
    [Fact]
    public void A_piece_is_laid_down_with_its_gaps_groups_and_shapes_and_undone_in_one_step()
    {
        var (one, other) = (Line(0, 0, 2000, 0), Line(0, 500, 2000, 500));
        var shape = Put(new Shape(ShapeKind.Circle, [At(1000, 1500), At(1400, 1500)]), 0x7C8A4B80);
        Do(Ines, new Change.ItemsSet([one, shape], [new ItemValue(ItemField.Group, Guid.NewGuid().ToString())]));
        Do(Ines, new Change.GapsAdded([new StrokeGaps(other, [new Interval(1000, 2000)])]));
        Do(Ines, new Change.ItemsShifted([other], 0, 300));
        var piece = Cutting.Of(Page, new HashSet<OpId> { one, other, shape });
        Assert.Equal(new Box(-20, -20, 2020, 1920), Cutting.Bounds(piece));
        var laying = LayAll(piece, 5000, 0);
        Do(Tobias, new Change.StepsJoined(laying.Steps));
        var items = laying.Items.Select(Item).ToList();
        Assert.Equal(3, items.Count);
        var copy = items.Single(item => item.Visible().Count == 2);
        Assert.Equal((5000, 800), (copy.Line.Samples.X[0], copy.Line.Samples.Y[0]));
        Assert.Equal([new Interval(0, 1000), new Interval(2000, (copy.Line.Samples.Count - 1) * 256)], copy.Visible());
        var groups = items.Where(item => item.Group.Length > 0).ToList();
        Assert.Equal(2, groups.Count);
        Assert.Equal(groups[0].Group, groups[1].Group);
        Assert.NotEqual(Item(one).Group, groups[0].Group);
        Assert.Equal(At(6000, 1500), items.Single(item => item.AsShape() is not null).AsShape()!.Shape.Points[0]);
        UndoAll(Tobias);
        Assert.Equal(3, Shown().Length);
    }

    [Fact]
    public void Whatever_was_done_to_a_page_its_copy_looks_the_same() =>
        Generate.PageHistory.Sample(
            history =>
            {
                PageDocument page = new(),
                    copy = new();
                foreach (var operation in history)
                    page.Apply(operation);
                var chosen = page.Items.Where(item => item.Shown).Select(item => item.Id).ToHashSet();
                // What is folded away with a slip that is copied comes along.
                var shown = page.Items.Where(item => chosen.Contains(item.Id) || (item.Stands && chosen.Contains(item.Slip))).ToList();
                var laying = new Laying(Cutting.Of(page, chosen), 0, 0, Guid.Empty);
                var device = new Replica(9, Generate.People[0]);
                var more = true;
                while (more)
                {
                    more = laying.Next(change =>
                    {
                        var operation = device.Make(change, 1_800_000_000_000);
                        Assert.Null(
                            OperationRules.Check(operation, DocumentKind.Page, Access.Role.Writer, device.Author, 1_800_000_000_000)
                        );
                        copy.Apply(operation);
                        return operation.Id;
                    });
                }

                var copies = laying.Items.Select(id => copy.Find(id)!).ToList();
                Assert.Equal(shown.Count, copies.Count);
                foreach (var (one, other) in shown.Zip(copies))
                {
                    if (one.Content is WrittenContent text)
                    {
                        Assert.Equal(one.Content.GetType(), other.Content.GetType());
                        var again = (WrittenContent)other.Content;
                        // How a line break itself would look nobody sees.
                        Assert.Equal(Passage.Of(text.Typed.Paragraphs()).Formats, Passage.Of(again.Typed.Paragraphs()).Formats);
                        Assert.Equal(text.Words, again.Words);
                        Assert.Equal((text.Measure, text.Ruling, text.Colour), (again.Measure, again.Ruling, again.Colour));
                        if (text is PictureContent picture)
                            Assert.Equal(
                                (picture.Shown with { Cut = PictureCut.Whole }, picture.Shown.Cut.ToText(), picture.Original),
                                (
                                    ((PictureContent)again).Shown with
                                    {
                                        Cut = PictureCut.Whole,
                                    },
                                    ((PictureContent)again).Shown.Cut.ToText(),
                                    ((PictureContent)again).Original
                                )
                            );
                        // The copy of a slip is unfolded.
                        if (text is SlipContent { IsFolded: true })
                            continue;
                        Assert.InRange(
                            Math.Abs(one.Bounds.Left - other.Bounds.Left) + Math.Abs(one.Bounds.Bottom - other.Bounds.Bottom),
                            0,
                            20
                        );
                        continue;
                    }

                    Assert.Equal(
                        (one.Line.Fill, one.Line.Pen.Colour, one.Visible().Count, one.Line.Samples.Count),
                        (other.Line.Fill, other.Line.Pen.Colour, other.Visible().Count, other.Line.Samples.Count)
                    );
                    Assert.Equal(one.Visible(), other.Visible());
                    // A line that was scaled to more than 20 mm is as wide as lines can be; where it lies is the same.
                    var (lies, lay) = (one.Line.Samples.Bounds().Shift((int)one.Dx, (int)one.Dy), other.Line.Samples.Bounds());
                    Assert.True(
                        Math.Abs(lies.Left - lay.Left) + Math.Abs(lies.Bottom - lay.Bottom) <= (one.AsShape() is null ? 0 : 20),
                        $"{one.AsShape()?.Shape?.Kind} {lies} {lay} {one.AsShape()?.PlacedShape} {one.Line.Pen}"
                    );
                }

                Assert.Equal(
                    shown.Where(item => item.Group.Length > 0).GroupBy(item => item.Group).Count(),
                    copies.Where(item => item.Group.Length > 0).GroupBy(item => item.Group).Count()
                );
            },
            iter: 300
        );

    [Fact]
    public void Twenty_thousand_strokes_are_laid_down_and_more_than_is_allowed_is_refused()
    {
        Operation Stroke(int i) =>
            new(new OpId(1, (ulong)i + 1), Hlc.At(i + 1), Guid.Empty, new Change.StrokeAdded(Ball, 1, Straight(0, i, 100, i)));
        var piece = OperationCodec.Encode([.. Enumerable.Range(0, 20_000).Select(Stroke)]);
        var laying = LayAll(piece, 10, 10);
        Assert.Equal(20_000, laying.Items.Count);
        Assert.Equal(20_000, Shown().Length);
        Do(Tobias, new Change.StepsJoined(laying.Steps));
        Assert.True(Page.CanUndo(Tobias.Author));
        UndoAll(Tobias);
        Assert.Equal((0, false, true), (Shown().Length, Page.CanUndo(Tobias.Author), Page.CanRedo(Tobias.Author)));
        var tooMuch = OperationCodec.Encode([.. Enumerable.Range(0, Laying.MostChanges + 1).Select(Stroke)]);
        Assert.Throws<OperationFormatException>(() => new Laying(tooMuch, 0, 0, Guid.Empty));
        Assert.Throws<OperationFormatException>(() => new Laying([1, 2, 3], 0, 0, Guid.Empty));
        var noPiece = OperationCodec.Encode([
            new Operation(new OpId(1, 1), Hlc.At(1), Guid.Empty, new Change.ItemsRemoved([new OpId(1, 9)])),
        ]);
        Assert.Throws<OperationFormatException>(() => new Laying(noPiece, 0, 0, Guid.Empty));
        Assert.Empty(Shown());
    }

    [Fact]
    public void Undoing_and_redoing_very_much_can_be_given_up_half_way()
    {
        var lines = Enumerable.Range(0, 300).Select(i => Line(0, i * 50, 2000, i * 50)).ToHashSet();
        Do(Tobias, new Change.StepsJoined(LayAll(Cutting.Of(Page, lines), 3000, 0).Steps));
        void Make(IEnumerable<Change> changes)
        {
            foreach (var change in changes)
                Do(Tobias, change);
        }

        void GiveUpAfter(int made, List<Change> changes, int shownThen)
        {
            var begun = new LongWork(changes);
            Make(begun.Take(made));
            Assert.Equal((300 - made, shownThen), (begun.Count, Shown().Length));
            var back = begun.GiveUp();
            Assert.Equal(made, back.Count);
            Make(back.Take(int.MaxValue));
        }

        GiveUpAfter(100, Page.Undo(Tobias.Author), 500);
        Assert.Equal((600, true, false), (Shown().Length, Page.CanUndo(Tobias.Author), Page.CanRedo(Tobias.Author)));
        Make(Page.Undo(Tobias.Author));
        Assert.Equal((300, false, true), (Shown().Length, Page.CanUndo(Tobias.Author), Page.CanRedo(Tobias.Author)));
        GiveUpAfter(200, Page.Redo(Tobias.Author), 500);
        Assert.Equal((300, false, true), (Shown().Length, Page.CanUndo(Tobias.Author), Page.CanRedo(Tobias.Author)));
        Make(Page.Redo(Tobias.Author));
        Assert.Equal(600, Shown().Length);
    }

    private Laying LayAll(byte[] piece, int dx, int dy)
    {
        var laying = new Laying(piece, dx, dy, Guid.Empty);
        while (laying.Done < laying.Count)
            laying.Next(change => Do(Tobias, change).Id);
        return laying;
    }

    [Fact]
    public void Room_is_made_below_a_line_by_two_at_once_and_taken_back_only_as_far_as_there_is_none_over_ink()
    {
        var (above, below) = (Line(0, 1000, 5000, 1000), Line(0, 4000, 5000, 4000));
        var ines = new MakeRoom(Page, 2500, false);
        var tobias = new MakeRoom(Page, 2500, false);
        Do(Ines, ines.Change(700)!);
        Do(Tobias, tobias.Change(300)!);
        Assert.Equal((0L, 1000L), (Item(above).Dy, Item(below).Dy));
        var back = new MakeRoom(Page, 2500, false);
        Do(Ines, back.Change(-20_000)!);
        Assert.Equal(Item(above).Bounds.Bottom, Item(below).Bounds.Top);
        // What lies beside and not in the way does not hold it up.
        Line(20_000, 6000, 21_000, 6000);
        Assert.True(new MakeRoom(Page, 1010, false).MostBack < 10);
        Assert.Null(new MakeRoom(Page, 25_000, false).Change(500));
    }

    [Fact]
    public void Room_is_made_to_the_right_and_what_leaves_the_sheet_is_named()
    {
        var (left, right) = (Line(1000, 0, 2000, 0), Line(4000, 0, 5000, 0));
        var room = new MakeRoom(Page, 3000, true);
        Assert.Equal([right], room.Moved.Select(item => item.Id));
        Assert.Equal([right], room.Leaving(3000, 7000).Select(item => item.Id));
        Assert.Empty(room.Leaving(1000, 7000));
        Do(Ines, room.Change(1500)!);
        Assert.Equal((0L, 1500L), (Item(left).Dx, Item(right).Dx));
    }

    /// <summary>Theil 1950, Sen 1968: the slope stays right with 29 % of the points anywhere.</summary>
    [Fact]
    public void A_baseline_is_found_though_a_quarter_of_the_feet_hang_low() =>
        Gen.Select(Gen.Double[-0.15, 0.15], Gen.Double[1000, 20000], Gen.Int[0, 10_000])
            .Sample(
                (slope, at0, seed) =>
                {
                    var random = new Random(seed);
                    var points = Enumerable
                        .Range(0, 40)
                        .Select(i =>
                            (X: i * 300.0, Y: at0 + slope * i * 300 + random.Next(-15, 16) + (i % 4 == 1 ? random.Next(100, 400) : 0))
                        )
                        .ToList();
                    var (found, foot) = EvenLines.TheilSen(points);
                    Assert.InRange(found, slope - 0.012, slope + 0.012);
                    Assert.InRange(foot + found * 6000, at0 + slope * 6000 - 60, at0 + slope * 6000 + 60);
                },
                iter: 200
            );

    [Fact]
    public void Slanting_drifting_lines_come_out_level_and_evenly_spaced()
    {
        // Three lines of five words of four letters; each line slopes otherwise, and they lie unevenly.
        double[] tops = [3000, 4250, 5350],
            slopes = [0.05, -0.04, 0.08];
        var random = new Random(5);
        var all = new List<OpId>();
        for (var line = 0; line < 3; line++)
        {
            for (var word = 0; word < 5; word++)
            {
                for (var letter = 0; letter < 4; letter++)
                {
                    var x = 2000 + word * 2200 + letter * 350 + random.Next(-40, 40);
                    var foot = (int)(tops[line] + slopes[line] * (x - 2000)) + (letter == 2 && word % 2 == 0 ? 160 : 0);
                    all.Add(Line(x, foot - 380, x + 260, foot));
                }
            }
        }

        var found = EvenLines.Find([.. all.Select(Item)]);
        Assert.Equal([5, 5, 5], found.Select(line => line.Words.Count));
        for (var i = 0; i < 3; i++)
            Assert.InRange(found[i].Slope, slopes[i] - 0.012, slopes[i] + 0.012);
        foreach (var (items, transform) in EvenLines.Work([.. all.Select(Item)], new EvenLines.Wish(1, true, false)))
            Do(Ines, new Change.ItemsTransformed([.. items.Select(item => item.Id)], [], transform));
        var even = EvenLines.Find([.. all.Select(Item)]);
        Assert.All(even, line => Assert.InRange(line.Slope, -0.008, 0.008));
        Assert.InRange(
            even[1].BaselineAt(5000) - even[0].BaselineAt(5000) - (even[2].BaselineAt(5000) - even[1].BaselineAt(5000)),
            -40,
            40
        );
        var gaps = even.SelectMany(line => line.Words.Zip(line.Words.Skip(1), (a, b) => b.Box.Left - a.Box.Right)).ToList();
        Assert.True(gaps.Max() - gaps.Min() < 220, string.Join(" ", gaps));
        Assert.Empty(EvenLines.Work([.. all.Select(Item)], new EvenLines.Wish(0, true, false)));
        Assert.Empty(EvenLines.Work([], new EvenLines.Wish(1, true, true)));
    }

    [Fact]
    public void A_tight_zig_zag_scratches_out_what_it_covers_and_writing_does_not()
    {
        var (word, next) = (Line(1000, 1000, 2600, 1050), Line(4000, 1000, 6000, 1000));
        var scratch = Zigzag(900, 2700, 800, 1250, 9);
        Assert.Equal([word], Scratch.Of(scratch, Page, ItemFilter.All).Select(item => item.Id));
        Assert.Contains(next, Shown());
        Assert.False(Scratch.LooksLikeOne(Zigzag(900, 8000, 900, 1200, 3)));
        Assert.False(Scratch.LooksLikeOne(Generate.Wave(200)));
        Assert.Empty(Scratch.Of(Zigzag(900, 2700, 5000, 5450, 9), Page, ItemFilter.All));
    }

    /// <summary>"www" turns back like a scratch; what stands under it or beside it is not what was meant.</summary>
    [Fact]
    public void Writing_over_a_dot_a_dash_or_a_highlight_takes_nothing()
    {
        // Three narrow w: twelve ways of 3 mm up and down, 0.6 mm apart.
        var writing = Upright(1000, 850, 1760, 1150, 12);
        Assert.True(Scratch.LooksLikeOne(writing));
        var dot = Write(Ball, Straight(1350, 1050, 1370, 1060));
        var dash = Write(Ball, Straight(1300, 1000, 1660, 1000));
        var highlight = Write(new Pen(PenKind.Highlighter, 500, 0xFFE06680), Straight(1000, 1000, 1760, 1000));
        Assert.Empty(Scratch.Of(writing, Page, ItemFilter.All));

        // With a word under it the word goes, with its dot and its highlight.
        var word = Write(Ball, Upright(1000, 880, 1750, 1120, 8));
        Assert.Equal(
            new[] { dot, dash, highlight, word }.Order(),
            Scratch.Of(writing, Page, ItemFilter.All).Select(item => item.Id).Order()
        );

        OpId Write(Pen pen, StrokeSamples samples)
        {
            var written = Ines.Make(new Change.StrokeAdded(pen, 0, samples), 0);
            Page.Apply(written);
            return written.Id;
        }
    }

    /// <summary>Real words of many hands, scratched out as a person does it: all of the word goes, and of its neighbours nothing.</summary>
    [Fact]
    public void A_scratched_word_goes_whole_and_of_its_group_only_what_was_covered()
    {
        var (word, far) = (Line(1000, 1000, 2600, 1050), Line(9000, 9000, 9900, 9000));
        Do(Ines, new Change.ItemsSet([word, far], [new ItemValue(ItemField.Group, Guid.NewGuid().ToString())]));
        Assert.Equal([word], Scratch.Of(Zigzag(900, 2700, 800, 1250, 9), Page, ItemFilter.All).Select(item => item.Id));
        Gen.Int[0, 100_000]
            .Sample(
                seed =>
                {
                    var random = new Random(seed);
                    var (page, device) = (new PageDocument(), new Replica(1, Guid.NewGuid()));
                    var strokes = WrittenPages.Write(seed % WrittenPages.Hands, 0, random);
                    var target = strokes[random.Next(strokes.Count)].Word;
                    var ids = new Dictionary<OpId, int>();
                    foreach (var stroke in strokes)
                    {
                        var written = device.Make(new Change.StrokeAdded(Ball, 0, stroke.Samples), 0);
                        page.Apply(written);
                        ids[written.Id] = stroke.Word;
                    }

                    var box = strokes
                        .Where(stroke => stroke.Word == target)
                        .Select(stroke => stroke.Samples.Bounds())
                        .Aggregate((a, b) => a.With(b));
                    // A dash alone is no word.
                    if (box.Right - box.Left < 300)
                        return;
                    var gone = Scratch
                        .Of(
                            Upright(box.Left - 60, box.Top - 40, box.Right + 60, box.Bottom + 40, 8 + (box.Right - box.Left) / 60),
                            page,
                            ItemFilter.All
                        )
                        .Select(item => ids[item.Id])
                        .ToList();
                    Assert.Equal(strokes.Count(stroke => stroke.Word == target), gone.Count(one => one == target));
                },
                iter: 100
            );
    }

    /// <summary>Measured against which line and word each stroke was written in, by ten hands, printed and joined, on slopes up to 10° either way.</summary>
    [Fact]
    public void Lines_and_words_are_found_as_a_reader_sees_them()
    {
        foreach (var slope in new[] { 0, 3, -3, 6, -6, 10, -10 })
        {
            var (lines, words, all) = (0, 0, 0);
            for (var hand = 0; hand < WrittenPages.Hands; hand++)
            {
                var (line, word, count) = EvenScore.Of(WrittenPages.Write(hand, slope, new Random(hand * 100 + slope)));
                (lines, words, all) = (lines + line, words + word, all + count);
            }

            Assert.True(lines >= all * 0.98, $"{slope}°: {lines} of {all} strokes in the right line");
            Assert.True(words >= all * 0.95, $"{slope}°: {words} of {all} strokes in the right word");
        }
    }

    [Fact]
    public void A_device_whose_clock_is_wrong_does_not_put_its_ink_out_of_turn_when_it_is_retraced()
    {
        var (clock, row) = (1_700_000_000_000, 0);
        OpId Write(Replica device, long wrongBy)
        {
            var samples = Straight(0, row += 100, 2000, row);
            clock += 1_000;
            var operation = device.Make(new Change.StrokeAdded(Ball, clock + wrongBy, samples), clock + samples.Time[^1]);
            Page.Apply(operation);
            return operation.Id;
        }

        // Inês, then Tobias, whose clock is ten years slow, then Inês again; then his is a day ahead.
        var (first, slow, third, fast, last) = (
            Write(Ines, 0),
            Write(Tobias, -315_576_000_000),
            Write(Ines, 0),
            Write(Tobias, 86_400_000),
            Write(Ines, 0)
        );
        var plan = Retrace.Plan(Page.Items);
        Assert.Equal([first, slow, third, fast, last], plan.Select(step => step.Item.Id));
        Assert.Equal([0, 1_000, 2_000, 3_000, 4_000], plan.Select(step => step.Start));
    }

    [Fact]
    public void Retracing_follows_the_samples_own_time_and_shortens_pauses()
    {
        OpId Write(Replica device, long at, int y)
        {
            var operation = device.Make(new Change.StrokeAdded(Ball, at, Straight(0, y, 2000, y)), at + 400);
            Page.Apply(operation);
            return operation.Id;
        }

        var (first, second, late) = (Write(Ines, 1_000_000, 0), Write(Ines, 1_000_100, 500), Write(Tobias, 9_000_000, 900));
        var plan = Retrace.Plan(Page.Items);
        Assert.Equal([first, second, late], plan.Select(step => step.Item.Id));
        Assert.Equal([0, 100], plan.Take(2).Select(step => step.Start));
        Assert.Equal(plan[1].End + Retrace.MostPause, plan[2].Start);
        var half = Assert.Single(Item(first).Content.MadeAfter(Item(first).Line.Samples.Time[^1] / 2, Item(first).Line.Samples.Time[^1]));
        Assert.InRange(half.End, Item(first).Line.Samples.Count * 120, Item(first).Line.Samples.Count * 130);
        Assert.Empty(Item(first).Content.MadeAfter(-1, 300));
        Assert.Equal(Item(first).Visible(), Item(first).Content.MadeAfter(9_999, 300));
    }

    [Fact]
    public void The_loupe_steps_along_the_line_then_to_the_next_by_the_papers_ruling()
    {
        var sheet = Paper.Default.Sheet(null);
        var box = new Box(2000, 4000, 9000, 5200);
        var on = LoupeSteps.On(box, Paper.Default, sheet, 2000);
        Assert.Equal((6900, 4000), (on.Left, on.Top));
        for (var i = 0; i < 10 && on.Top == 4000; i++)
            on = LoupeSteps.On(on, Paper.Default, sheet, 2000);
        Assert.Equal((2000, 4000 + 710), (on.Left, on.Top));
        Assert.Equal(sheet.Bottom, LoupeSteps.NextLine(box with { Top = 28_400, Bottom = 29_600 }, Paper.Default, sheet, 2000).Bottom);
        Assert.Equal(box.Left - 2000, LoupeSteps.Back(box, sheet).Left);
    }

    [Fact]
    public void The_loupe_steps_one_printed_line_however_wide_and_high_it_is() =>
        Gen.Select(Gen.Int[1000, 20_000], Gen.Int[300, 6_000], Gen.Int[0, 5])
            .Sample(
                (wide, high, which) =>
                {
                    var design = new[] { "ruled", "legal", "squared", "dotted", "millimetre", "columns" }[which];
                    var paper = Paper.Default with { Design = PaperDesigns.Find(design)!, Spacing = PaperDesigns.Find(design)!.Spacing };
                    var sheet = paper.Sheet(null);
                    var next = LoupeSteps.NextLine(new Box(3000, 3000, 3000 + wide, 3000 + high), paper, sheet, 2000);
                    Assert.Equal((2000, design == "millimetre" ? 3400 : 3000 + paper.Spacing), (next.Left, next.Top));
                    Assert.Equal((wide, high), (next.Right - next.Left, next.Bottom - next.Top));
                }
            );

    private static StrokeSamples Upright(int left, int top, int right, int bottom, int ways)
    {
        var points = Enumerable
            .Range(0, ways * 8 + 1)
            .Select(i =>
            {
                double at = i / 8.0,
                    up = Math.Abs(at % 2 - 1);
                return (X: left + (int)((right - left) * at / ways), Y: top + (int)((bottom - top) * up));
            })
            .ToList();
        return new StrokeSamples(
            [.. points.Select(p => p.X)],
            [.. points.Select(p => p.Y)],
            [.. points.Select(_ => 500)],
            [.. points.Select((_, i) => i * 6)]
        );
    }
}
