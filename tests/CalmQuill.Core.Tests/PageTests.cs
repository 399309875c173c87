using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>Undo by person, additive shifts, gaps, and the eraser.</summary>
public class PageTests
{
    private static readonly Pen Ball = new(PenKind.Ball, 40, 0xFF);
    private readonly Replica ines = new(1, Generate.People[0]);
    private readonly Replica tobias = new(2, Generate.People[1]);
    private readonly PageDocument page = new();
    private long now = 1_700_000_000_000;

    [Fact]
    public void Undo_takes_back_ones_own_last_step_and_nobody_elses()
    {
        var first = Do(ines, Stroke());
        var second = Do(ines, Stroke());
        var others = Do(tobias, Stroke());
        Do(ines, Assert.Single(page.Undo(ines.Author)));
        Assert.Equal([first.Id, others.Id], Shown());
        Do(ines, Assert.Single(page.Undo(ines.Author)));
        Assert.Equal([others.Id], Shown());
        Assert.Empty(page.Undo(ines.Author));
        Do(ines, Assert.Single(page.Redo(ines.Author)));
        Do(ines, Assert.Single(page.Redo(ines.Author)));
        Assert.Equal([first.Id, second.Id, others.Id], Shown());
        Assert.Empty(page.Redo(ines.Author));
    }

    [Fact]
    public void A_new_step_ends_what_can_be_redone()
    {
        Do(ines, Stroke());
        Do(ines, Assert.Single(page.Undo(ines.Author)));
        Do(ines, Stroke());
        Assert.Empty(page.Redo(ines.Author));
    }

    [Fact]
    public void Nobody_takes_back_what_another_wrote()
    {
        var stroke = Do(ines, Stroke());
        Do(tobias, new Change.EffectSet(stroke.Id, false));
        Assert.Equal([stroke.Id], Shown());
    }

    [Fact]
    public void Shifts_of_two_people_add_up_and_come_off_one_by_one()
    {
        var stroke = Do(ines, Stroke());
        Do(ines, new Change.ItemsShifted([stroke.Id], 0, 710));
        Do(tobias, new Change.ItemsShifted([stroke.Id], 100, 710));
        Assert.Equal((100, 1420), (page.Find(stroke.Id)!.Dx, page.Find(stroke.Id)!.Dy));
        Do(ines, Assert.Single(page.Undo(ines.Author)));
        Assert.Equal((100, 710), (page.Find(stroke.Id)!.Dx, page.Find(stroke.Id)!.Dy));
    }

    [Fact]
    public void Two_people_rubbing_at_one_stroke_both_keep_their_gaps_and_undo_only_their_own()
    {
        var stroke = Do(ines, Stroke());
        Do(ines, new Change.GapsAdded([new StrokeGaps(stroke.Id, [new Interval(256, 1024)])]));
        Do(tobias, new Change.GapsAdded([new StrokeGaps(stroke.Id, [new Interval(768, 2048)])]));
        var end = 49 * Interval.PerSample;
        Assert.Equal([new Interval(0, 256), new Interval(2048, end)], page.Find(stroke.Id)!.Visible());
        Do(ines, Assert.Single(page.Undo(ines.Author)));
        Assert.Equal([new Interval(0, 768), new Interval(2048, end)], page.Find(stroke.Id)!.Visible());
    }

    [Fact]
    public void A_fine_eraser_takes_only_what_it_touches()
    {
        var line = new StrokeSamples([0, 1000, 2000], [500, 500, 500], [500, 500, 500], [0, 10, 20]);
        var stroke = Do(ines, new Change.StrokeAdded(Ball, now, line));
        var pass = new EraserPass(page, 15, whole: false);
        Assert.Empty(pass.MoveTo(1500, 400));
        pass.MoveTo(1500, 500);
        Do(ines, pass.End()!);
        var visible = page.Find(stroke.Id)!.Visible();
        // An eraser of 0.3 mm leaves a gap of 0.3 mm, less what the parameter's step of 1/256 of these 10 mm takes off at both ends; never more.
        Assert.Equal(2, visible.Count);
        Assert.InRange((visible[1].Start - visible[0].End) / 256.0 * 1000, 22, 30);
    }

    [Fact]
    public void Grazing_a_wide_line_takes_no_more_of_its_length_than_lies_under_the_eraser()
    {
        var line = new StrokeSamples([0, 1000], [0, 0], [500, 500], [0, 10]);
        var touched = new List<Interval>();
        Eraser.Touch(line, new Pen(PenKind.Ball, 400, 0xFF), 500, 240, 50, touched);
        Assert.InRange((touched[0].End - touched[0].Start) / 256.0 * 1000, 50, 62);
    }

    [Fact]
    public void The_stroke_eraser_takes_whole_strokes_and_undo_brings_them_back()
    {
        var near = Do(ines, Stroke());
        var far = Do(tobias, new Change.StrokeAdded(Ball, now, Generate.Wave(20, 3000, 20000)));
        var pass = new EraserPass(page, 100, whole: true);
        pass.MoveTo(3000, 4000);
        pass.MoveTo(3400, 6000);
        Do(ines, pass.End()!);
        Assert.Equal([far.Id], Shown());
        Do(ines, Assert.Single(page.Undo(ines.Author)));
        Assert.Equal([near.Id, far.Id], Shown());
    }

    [Fact]
    public void A_wrong_clock_is_set_right_and_what_waits_is_stamped_anew()
    {
        var device = new Replica(9, Generate.People[0]);
        var ahead = device.Make(Stroke(), now + 3_600_000);
        Assert.Equal(Refusal.ClockAheadCode, OperationRules.Check(ahead, DocumentKind.Page, Access.Role.Writer, device.Author, now)!.Code);
        device.CorrectClock(now, now + 3_600_000);
        var again = device.Restamp(ahead, now + 3_600_100);
        Assert.Null(OperationRules.Check(again, DocumentKind.Page, Access.Role.Writer, device.Author, now));
        Assert.Equal(ahead.Id, again.Id);
        Assert.True(device.Make(Stroke(), now).Time > again.Time);
    }

    private Operation Do(Replica device, Change change)
    {
        var operation = device.Make(change, now += 100);
        page.Apply(operation);
        return operation;
    }

    private Change.StrokeAdded Stroke() => new(Ball, now, Generate.Wave(50));

    private OpId[] Shown() => [.. page.Items.Where(item => item.Shown).Select(item => item.Id)];
}
