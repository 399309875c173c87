using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Planner;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Covers, printed letters and paths: what drawings are made of.</summary>
public class ArtTests
{
    [Fact]
    public void A_cover_follows_from_its_name_and_stays_on_it()
    {
        foreach (var design in Cover.Designs)
        {
            var faces = new HashSet<string>();
            foreach (
                var name in new[]
                {
                    "Class notebook",
                    "Going train",
                    "The pendulum",
                    "Oils and cleaning",
                    "Verge and cylinder",
                    "",
                    "水時計",
                }
            )
            {
                var drawing = Cover.Draw(design, 0x1F3B3AFF, name);
                Assert.Equal(Face(drawing), Face(Cover.Draw(design, 0xB4513AFF, name)));
                Assert.All(drawing.Pieces.SelectMany(PointsOf), point => Assert.InRange(point, -2 * Cover.Height, 2 * Cover.Height));
                faces.Add(Face(drawing));
            }

            // So that notebooks on a shelf differ, also in one design.
            if (design != "plain")
                Assert.True(faces.Count >= 3, $"{design}: {faces.Count}");
        }

        Assert.Equal(Face(Cover.Draw("rings", 1, "x")), Face(Cover.Draw("a word that is no design", 1, "x")));
        Assert.Equal(
            Cover.Designs.Length,
            Cover.Designs.Select(design => Face(Cover.Draw(design, 1, "Class notebook"))).Distinct().Count()
        );
    }

    [Fact]
    public void Every_letter_of_every_calendar_is_drawn_and_not_as_a_box()
    {
        var box = Glyphs.Write("水", 0, 0, 1000).ToSvg();
        foreach (var names in CalendarNames.All)
        {
            Assert.Equal((12, 7), (names.Months.Distinct().Count(), names.Days.Distinct().Count()));
            foreach (var letter in string.Concat([.. names.Months, .. names.Days, names.Week, names.Language]).Distinct())
            {
                var drawn = Glyphs.Write(letter.ToString(), 0, 0, 1000);
                Assert.False(drawn.IsEmpty, $"{names.Code} {letter}");
                Assert.NotEqual(box, drawn.ToSvg());
            }
        }
    }

    [Fact]
    public void A_path_reads_back_from_its_text() =>
        Gen.Select(Gen.Int[0, 4], Gen.Int[-9_999, 9_999].Array[6])
            .Array[0, 30]
            .Sample(steps =>
            {
                var path = new VectorPath();
                foreach (var (step, p) in steps)
                {
                    _ = step switch
                    {
                        0 => path.MoveTo(p[0], p[1]),
                        1 => path.LineTo(p[0], p[1]),
                        2 => path.QuadraticTo(p[0], p[1], p[2], p[3]),
                        3 => path.CubicTo(p[0], p[1], p[2], p[3], p[4], p[5]),
                        _ => path.Close(),
                    };
                }

                var read = VectorPath.Parse(path.ToSvg());
                Assert.Equal(path.Steps, read.Steps);
                Assert.Equal(path.Points, read.Points);
                Assert.Equal(path.Points.Count, path.Steps.Sum(VectorPath.PointsOf) * 2);
            });

    [Fact]
    public void Wrapped_words_keep_their_order_and_their_column() =>
        Gen.Select(Gen.String[Gen.Char["abc dWi "], 0, 60], Gen.Int[1_200, 6_000], Gen.Int[1, 5])
            .Sample(
                (text, width, most) =>
                {
                    var lines = Glyphs.Wrap(text, 300, width, most);
                    Assert.True(lines.Count <= most);
                    Assert.All(lines, line => Assert.True(Glyphs.Width(line, 300) <= width));
                    var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
                    if (lines.Count < most && words.All(word => Glyphs.Width(word, 300) <= width))
                        Assert.Equal(words, string.Join(' ', lines).Split(' ', StringSplitOptions.RemoveEmptyEntries));
                }
            );

    /// <summary>The pattern without its colour.</summary>
    private static string Face(Drawing drawing) =>
        string.Join(
            '|',
            drawing.Pieces.Select(piece =>
                piece switch
                {
                    Piece.Fill fill => fill.Path.ToSvg(),
                    Piece.Line line => line.Path.ToSvg() + line.Width.ToString(CultureInfo.InvariantCulture),
                    _ => "",
                }
            )
        );

    private static IReadOnlyList<float> PointsOf(Piece piece) =>
        piece switch
        {
            Piece.Fill fill => fill.Path.Points,
            Piece.Line line => line.Path.Points,
            _ => [],
        };
}
