using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>A page without its past shows what the page shows, and holds nothing else.</summary>
public sealed class StandingPageTests : OnPage
{
    private static readonly ItemField[] Leaning = [ItemField.From, ItemField.To, ItemField.Holder];
    private static readonly ItemField[] Fields = [.. Enum.GetValues<ItemField>().Except([ItemField.Layer, ItemField.Shape, .. Leaning])];

    [Fact]
    public void It_shows_the_same_things_in_the_same_order_by_the_same_people() =>
        Generate.PageHistory.Sample(made =>
        {
            var page = new PageDocument();
            foreach (var operation in made)
                page.Apply(operation);
            var standing = Standing(page);
            Assert.Equal(Seen(page).Select(item => item.Id), Seen(standing).Select(item => item.Id));
            foreach (var (item, again) in Seen(page).Zip(Seen(standing)))
            {
                Assert.Equal((item.Author, item.Stamp, item.Kind, item.Shown), (again.Author, again.Stamp, again.Kind, again.Shown));
                Assert.Equal(item.Visible(), again.Visible());
                Assert.Equal(item.Layer, again.Layer);
                Assert.Equal(Fields.Select(item.Read), Fields.Select(again.Read));
                // What leaned on something that is not seen lies where it lay, by itself.
                if (item.Content.LeansOn.All(lean => Seen(page).Any(one => one.Id == lean.On)))
                    Assert.Equal(item.Content.LeansOn, again.Content.LeansOn);
                else
                    Assert.Empty(again.Content.LeansOn);
                if (item.Content is WrittenContent text)
                {
                    Assert.Equal(item.Content.GetType(), again.Content.GetType());
                    var text2 = (WrittenContent)again.Content;
                    Assert.Equal(text.Typed.Spans(), text2.Typed.Spans());
                    Assert.Equal(text.Typed.EndLook, text2.Typed.EndLook);
                    Assert.Equal(item.Bounds.Bottom - item.Bounds.Top, again.Bounds.Bottom - again.Bounds.Top, 25.0);
                    continue;
                }

                var (line, line2) = ((LineContent)item.Content, (LineContent)again.Content);
                Assert.Equal((line.Colour, line.Fill), (line2.Colour, line2.Fill));
                // Where something is seen the pen went the same way; steps of scaling and turning are one in whole numbers.
                foreach (var part in item.Visible())
                {
                    for (var i = part.Start / Interval.PerSample; i <= part.End / Interval.PerSample; i++)
                    {
                        Assert.InRange(line2.Samples.X[i] + again.Dx - line.Samples.X[i] - item.Dx, -25, 25);
                        Assert.InRange(line2.Samples.Y[i] + again.Dy - line.Samples.Y[i] - item.Dy, -25, 25);
                    }
                }
            }

            static object Told(Spot spot) =>
                (
                    spot.Id,
                    spot.Kind,
                    spot.CreatedAt,
                    spot.Author,
                    spot.DoneAt,
                    spot.DoneBy,
                    string.Join(';', spot.Values.OrderBy(value => value.Key).Select(value => $"{value.Key} {value.Value}"))
                );
            Assert.Equal(
                page.Spots().Select(Told).OrderBy(told => told.ToString()),
                standing.Spots().Select(Told).OrderBy(told => told.ToString())
            );
            Assert.Equal(page.Layers, standing.Layers);
        });

    [Fact]
    public void It_holds_no_operation_of_what_does_not_stand() =>
        Generate.PageHistory.Sample(made =>
        {
            var page = new PageDocument();
            foreach (var operation in made)
                page.Apply(operation);
            var standing = StandingPage.Of(page);
            var seen = Seen(page).Select(item => item.Id).ToHashSet();
            Assert.All(
                standing.Where(operation => operation.Id.Replica != 0),
                operation => Assert.Contains(operation.Change is Change.TextTyped typed ? typed.Text : operation.Id, seen)
            );
            // Of what was typed no letter is in it that nobody sees.
            Assert.All(
                standing.Select(operation => operation.Change).OfType<Change.TextTyped>().GroupBy(typed => typed.Text),
                typed =>
                    Assert.Equal(
                        page.Find(typed.Key)!.Typed.Text.Count(letter => letter != '\u200b'),
                        typed.Sum(one => one.Typed.Insertions.Sum(insertion => insertion.Text.Count(letter => letter != '\u200b')))
                            + standing
                                .Where(operation => operation.Id == typed.Key)
                                .Sum(operation => ((Change.WrittenAdded)operation.Change).Passage.Text.Count(letter => letter != '\u200b'))
                    )
            );
            Assert.DoesNotContain(standing, operation => operation.Change is Change.EffectSet or Change.ItemsRemoved or Change.StepsJoined);
            Assert.All(standing.Select(operation => operation.Change).OfType<Change.ShapeAdded>(), shape => Assert.Empty(shape.Replaces));
            // It goes the same way as any operations do.
            Assert.Equal(standing.Count, OperationCodec.Decode(OperationCodec.Encode(standing)).Count);
            Assert.Equal(Standing(page).EncodeState(), Standing(Standing(page)).EncodeState());
        });

    [Fact]
    public void Of_a_word_that_was_rubbed_out_the_way_of_the_pen_is_not_in_it()
    {
        var wave = Generate.Wave(80);
        var stroke = Do(Ines, new Change.StrokeAdded(Ball, Now, wave));
        var (from, to) = (wave.Count / 4, wave.Count * 3 / 4);
        Do(Tobias, new Change.GapsAdded([new StrokeGaps(stroke.Id, [new Interval(from * Interval.PerSample, to * Interval.PerSample)])]));
        var left = ((Change.StrokeAdded)StandingPage.Of(Page)[0].Change).Samples;
        for (var i = from + 4; i < to - 4; i++)
        {
            var share = (double)(i - from - 3) / (to - from - 6);
            Assert.Equal(wave.X[from + 3] + (wave.X[to - 3] - wave.X[from + 3]) * share, left.X[i], 1.0);
            Assert.Equal(wave.Y[from + 3] + (wave.Y[to - 3] - wave.Y[from + 3]) * share, left.Y[i], 1.0);
        }

        Assert.Equal(wave.Y[..(from + 3)], left.Y[..(from + 3)]);
        Assert.Equal(wave.Y[(to - 2)..], left.Y[(to - 2)..]);
        Assert.Contains(Enumerable.Range(from + 4, to - from - 8), i => Math.Abs(wave.Y[i] - left.Y[i]) > 20);
    }

    [Fact]
    public void What_a_mark_said_before_is_not_in_it_and_what_was_answered_is()
    {
        var mark = Generate.Node(1);
        Do(
            Ines,
            new Change.SpotAdded(
                mark,
                SpotKind.Mark,
                new Box(0, 0, 9, 9),
                [],
                [new SpotValue(SpotField.Mark, MarkKinds.Ask), new SpotValue(SpotField.Note, "a secret")]
            )
        );
        Do(Ines, new Change.SpotSet(mark, [new SpotValue(SpotField.Note, "Why?")]));
        var answer = Do(Tobias, new Change.AnswerAdded(mark, "Because.", [], default));
        var withdrawn = Do(Tobias, new Change.AnswerAdded(mark, "Withdrawn.", [], default));
        Do(Tobias, new Change.AnswerWithdrawn(withdrawn.Id));
        var standing = StandingPage.Of(Page);
        Assert.DoesNotContain("secret", System.Text.Encoding.UTF8.GetString(OperationCodec.Encode(standing)), StringComparison.Ordinal);
        var again = Assert.Single(Standing(Page).Spots());
        Assert.Equal("Why?", again[SpotField.Note]);
        Assert.Equal(answer.Id, Assert.Single(again.Answers).Id);
    }

    private static List<PageItem> Seen(PageDocument page) => [.. page.Items.Where(item => item.Stands && item.Visible().Count > 0)];

    private static PageDocument Standing(PageDocument page)
    {
        var standing = new PageDocument();
        foreach (var operation in StandingPage.Of(page))
            Assert.True(standing.Apply(operation));
        return standing;
    }
}
