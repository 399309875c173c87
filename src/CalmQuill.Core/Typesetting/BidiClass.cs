namespace CalmQuill.Core.Typesetting;

/// <summary>Classes of signs for directions, named as in UAX #9, table 4.</summary>
internal enum BidiClass : byte
{
    L,
    R,
    AL,
    EN,
    ES,
    ET,
    AN,
    CS,
    NSM,
    BN,
    B,
    S,
    WS,
    ON,
    LRE,
    LRO,
    RLE,
    RLO,
    PDF,
    LRI,
    RLI,
    FSI,
    PDI,
}
