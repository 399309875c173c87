using CalmQuill.Core.Shapes;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

public class ShapeTests
{
    [Fact]
    public void Rough_shapes_come_out_as_what_they_were_meant_to_be()
    {
        var confusion = RoughShapes.Confusion(200, 7);
        var table = string.Join("\n", confusion.Select(row => $"{row.Key,-16} {row.Value.GetValueOrDefault(row.Key.ToString()) / 2.0,5:0.0} %  {string.Join(", ", row.Value.Where(cell => cell.Key != row.Key.ToString()).Select(cell => $"{cell.Key} {cell.Value}"))}"));
        var right = confusion.Sum(row => row.Value.GetValueOrDefault(row.Key.ToString())) / (200.0 * confusion.Count);
        Assert.True(right >= 0.97, $"{right:0.000}\n{table}");
        Assert.All([ShapeKind.Square, ShapeKind.Arrow], kind => Assert.True(confusion[kind].GetValueOrDefault(kind.ToString()) >= 196, $"{kind}\n{table}"));
    }
}
