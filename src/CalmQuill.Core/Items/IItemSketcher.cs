using CalmQuill.Core.Ink;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>What things are drawn onto with few points, for small pictures. Points are x, y, x, y… in 0.01 mm.</summary>
public interface IItemSketcher
{
    /// <summary>A filled region of one or several rings; one that runs the other way round within another is a hole in it.</summary>
    void Region(IEnumerable<long[]> rings, uint colour);

    /// <summary>A line of a pen's colour and width; one of a single point is a dot.</summary>
    void Line(ReadOnlySpan<long> points, Pen pen);

    /// <summary>A text whose letters are large enough to be read; see <see cref="ItemPainter.Write"/>.</summary>
    void Write(SetText text, in Affine place, uint colour);

    /// <summary>A picture; see <see cref="ItemPainter.Draw"/>.</summary>
    void Draw(PictureLook picture, in Affine place);
}
