namespace CalmQuill.Core.Art;

/// <summary>What is printed on a sheet or a cover, from the back to the front. Screen, thumbnail, SVG and PDF all draw from it.</summary>
/// <param name="Ground">The colour of the sheet itself, 0xRRGGBBAA.</param>
public sealed record Drawing(uint Ground)
{
    private readonly List<Piece> pieces = [];
    private readonly List<DrawingLink> links = [];

    public IReadOnlyList<Piece> Pieces => pieces;

    /// <summary>The parts that lead to pages of the same notebook; of overlapping ones the last.</summary>
    public IReadOnlyList<DrawingLink> Links => links;

    public void Add(Piece piece)
    {
        if (piece is Piece.Fill { Path.IsEmpty: true } or Piece.Line { Path.IsEmpty: true })
            return;
        pieces.Add(piece);
    }

    public void Add(DrawingLink link) => links.Add(link);
}

/// <summary>A part of a sheet that leads to a page.</summary>
/// <param name="Area">Where, 0.01 mm.</param>
/// <param name="Page">The page's id.</param>
/// <param name="Target">Which page of the planner it is.</param>
public readonly record struct DrawingLink(Ink.Box Area, Guid Page, Planner.PlannerPage Target);
