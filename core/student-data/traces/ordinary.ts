const words = (text: string): string[] => text.split(/\s+/)
/**
 * English words that are names as well (from memory): in small letters they are no name, and at the beginning of a sentence they are none
 * by themselves.
 */
export const ordinaryWords: ReadonlySet<string> = new Set(
  words(
    `april art august autumn baker banks bay beach bell berry bill bird bishop black bloom blue booth bow branch brook brooks
    brown bud burns bush butler carpenter chance chase church clay coal cole cook coral crane cross dale dawn day days dean dell dew
    drake east ever faith farmer field fields finch fisher flint flora ford forest forrest fox frank frost gale gardener glen
    gold good grace grant gray green grey guy hall harbor harbour harmony haven hazel heath hill hope hunt hunter ice iris ivy jack jade
    jasmine jay joy june justice key king knight lake lamb lance land lane lark law leaf lee light lily little long love major may
    meadow mercy mile miles mill miller moon moore moss mark marks noble north oak ocean olive page park parks patience pearl penny
    pepper pike pine piper pool poppy porter potter power price pride prince quill rain ray reed reef rice rich ridge river rivers rob robin rock
    rose rowan ruby rush rusty sage sailor sand sandy sea shell shepherd shore short sky smith snow sorrel south spring star stone storm
    strand stream street sue summer summers sunny swan swift tanner taylor teal terra thorn tide towns tree true vale victor violet wade walker
    ward waters weaver web wells west wheeler white will wind winter wise wolf wood woods wren wright young
    abbot amber angel archer arrow bacon barber barrow basil bolt bond boot bowman bright broad buck bull burn camp candy carol castle chamber
    chandler clerk cliff close cooper copper cotton couch court crow crystal curry cutler daisy diamond draper drum duck duke dyer earl english
    farrow fell fern fish flower foster fowler french friend gamble garland gates ginger glass glover golden goodman grove hammer hand hare
    harper hart hawk hay head heart heather herd holly hood hook horn house hull jewel judge keen kitchen latch lemon lock lord low mace
    marsh martin mason mayor mead means melody mercer merchant merry minor misty moody mount mustard myrtle nail newman nightingale noon
    nurse opal orchard otter palmer parson pass peach peacock peak pickle plant plum pole pond post pound primrose proud quick rainbow
    ram raven ready rider ring roach rocky roper round royal rudder saffron savage scarlet sharp shield singer skinner small spark
    spear speed spicer squire stable staff steel sterling strange strong sugar sweet tailor temple thatcher tiger tiller toll tower train
    trinity trout tuck tucker turner twist usher vine warden waterman wax weeks wheel wick wild winch wing witch wool worth yard yarrow york`,
  ),
)
/** What stands after a name where that is a place's, a law's or a method's (from memory): `Holt Street`, `Coriolis force`. */
const afterNames: ReadonlySet<string> = new Set(
  words(
    `avenue bank basin bay beach bridge building canal cape centre chart coast college constant cove creek curve department diagram effect
    equation factor falls field force formula foundation gallery garden gardens gulf hall harbor harbour head hill house institute island
    islands lake law library light lighthouse line lock map mark marsh method mill model museum number park pass passage peninsula pier point pond
    port press principle quay reef ridge river road rock rule scale school society sound square station strait street table test theorem
    tower university valley wharf works`,
  ),
)
/** What stands before a name where that is a place's (from memory): `Lake Victor`, `Cape Rose`. */
const beforeNames: ReadonlySet<string> = new Set(
  words(
    'bay camp cape castle fort glacier gulf isle island lac lake loch lough mount mountain point pointe port river saint st strait',
  ),
)
export const isNamedAfter = (word: string): boolean => beforeNames.has(word)
export const namesSomethingElse = (word: string): boolean => afterNames.has(word)
