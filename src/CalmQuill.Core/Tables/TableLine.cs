namespace CalmQuill.Core.Tables;

/// <summary>A row or a column of a table.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Place">Where it lies among the others: an <see cref="Ordering.OrderKey"/>.</param>
/// <param name="Extent">How wide it is, or how high at least, 0.01 mm; 0 for as usual.</param>
/// <param name="IsGone">Whether it was removed.</param>
/// <param name="Total">What stands under it; empty for nothing.</param>
/// <param name="Align">Where the lines of its cells stand that say nothing themselves.</param>
/// <param name="Paragraph">Which paragraph of the text stands for it.</param>
public sealed record TableLine(string Id, string Place, int Extent, bool IsGone, string Total, string Align, int Paragraph);
