namespace CalmQuill.Core.Operations;

/// <summary>The number of a kind of change in the stored form. Numbers are never used again.</summary>
public enum ChangeKind : byte
{
    NodePlaced = 1,
    PropertySet = 2,
    PageAdded = 3,
    StrokeAdded = 4,
    ItemsRemoved = 5,
    ItemsShifted = 6,
    GapsAdded = 7,
    EffectSet = 8,
    TagSet = 9,
    Visited = 10,
    SpotAdded = 11,
    SpotSet = 12,
    ItemsTransformed = 13,
    ShapeAdded = 14,
    ItemsSet = 15,
    LayerSet = 16,
    StepsJoined = 17,
    OrdersSet = 18,
    ItemsAnchored = 19,
    AnswerAdded = 20,
    AnswerWithdrawn = 21,
    TextAdded = 22,
    TextTyped = 23,
    ThingAdded = 24,
}
