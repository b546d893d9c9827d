/** A page of the demo course. `[[key|words]]` links to another page; blank lines part paragraphs. */
export interface ProsePage {
  key: string
  title: string
  text: string
}
export interface ProseUnit {
  title: string
  overview: string
  pages: ProsePage[]
  discussion: { title: string; text: string }
  lab: string
  problems: string
  log: string
  quiz: [prompt: string, right: string, ...wrong: string[]][]
}

export const frontPages: ProsePage[] = [
  {
    key: 'log-how',
    title: 'How to write a shore log',
    text: `A shore log is a page of observation, written where you stand. Give the place, the date and the time to the minute, the state of the sky, the wind and the sea, and the height of the water against something that will not move: a step, a ring, a painted mark.

Return after twenty minutes and note it again. End with one sentence that says what surprised you. The log is marked for care, not for drama; a quiet tide well described earns more than a storm half seen.`,
  },
  {
    key: 'safety',
    title: 'Safety on the foreshore',
    text: `Nobody goes below the high-water mark alone. Before you leave, read the predicted times for the day, add an hour for your own mistakes, and tell the field office where you will be and when you will be back.

Wear boots that tie. Keep one hand free on weed and ladders. Turn round at half tide rising, whatever the work still wants, because the causeway at the Narrows is cut off from behind, and fast, and without any noise.`,
  },
  {
    key: 'contact',
    title: 'How to reach us',
    text: `Questions about the work go to the course forum, where the answer helps everyone; anything about your own circumstances goes to the instructor directly. We answer on teaching days before noon.

Office hours are held in the tide room on the ground floor of the hydrography building, straight after class, and by arrangement at other times. If a door is closed, knock: somebody is usually reading a gauge behind it and will be glad of the interruption.`,
  },
]

export const syllabus: ProsePage = {
  key: 'syllabus',
  title: 'Syllabus',
  text: `Tidal Hydrography is about the height of the sea: why it moves, how it is measured, to what it is referred, and what a mariner, an engineer or a planner may safely conclude from a table of predictions. We meet three times a week; one meeting in each unit is spent on the shore.

Marks come from shore logs, check-in quizzes, lab sheets, problem sets, discussions, a mid-term paper, the soundings project and the final practical. The weights stand in the grade book. Work is due at the end of the day unless it says otherwise, and closes two days later. Begin with [[log-how|how to write a shore log]] and [[safety|safety on the foreshore]].`,
}

export const recess: ProsePage = {
  key: 'recess-reading',
  title: 'Reading over recess',
  text: `There is no class during recess and nothing to hand in. If you would like company on the train, read the chapter on observers and their clocks in the course reader, and think about this: for two centuries most of what was known about tides came from people who looked at a pole every quarter of an hour, in all weathers, and wrote down a number. What did they gain that a sensor does not, and what did they lose?`,
}

export const units: ProseUnit[] = [
  {
    title: 'Getting your bearings',
    overview: `This unit sets the scene. By its end you can say what makes the sea rise and fall, read a tide table without help, and keep a shore log that another person could use. We look at the two bulges first, then at everything that spoils them: continents, depth, friction and the turning of the earth. Start with [[bulges|the two bulges]], then visit the harbour steps at both turns of the tide.`,
    pages: [
      {
        key: 'bulges',
        title: 'The two bulges',
        text: `The moon pulls on all of the earth, but not equally: most on the near side, least on the far side. Take away the average pull, and what remains stretches the oceans along the line to the moon and squeezes them in between. That leaves two bulges, one under the moon and one opposite.

The earth turns beneath them once a day, so a place passes both. The moon meanwhile moves on, which is why high water comes about fifty minutes later each day.`,
      },
      {
        key: 'springs',
        title: 'Springs and neaps',
        text: `The sun raises a tide too, a little less than half as high as the moon's. At new and at full moon the two lie in line and add up: the range is large, and we speak of springs. At the quarters they work across each other, and the range is small: neaps.

In most harbours springs come a day or two after the moon's phase, because a heavy ocean answers late. That delay, the age of the tide, is one of the first numbers an observer can find alone.`,
      },
      {
        key: 'table',
        title: 'Reading a tide table',
        text: `A tide table gives times and heights of high and low water at a standard port, in the port's own time and above its chart datum. Before you use a line of it, check three things: which zone the times are in, whether summer time has been added, and to what level the heights refer.

For a place between standard ports, the table lists differences to be applied. They were found by observation, hold best at mean springs, and say nothing about wind or pressure.`,
      },
      {
        key: 'shape',
        title: 'Why every coast differs',
        text: `If the earth were a smooth ball of deep water, the tide would be the same along every parallel. Real basins have lengths and depths of their own, and each answers best to a certain period, as a bath slops when pushed at the right moment.

A gulf whose natural period is near half a day can turn a tide of one metre at its mouth into ten at its head. A sea that is nearly closed may have almost none. The forcing is astronomical; the response belongs to the place.`,
      },
    ],
    discussion: {
      title: 'Where is your water?',
      text: `Introduce yourself by a tide. Describe the water nearest to where you grew up: sea, river, lake or tap. Does it rise and fall, and who would notice? Answer two others with a question that a hydrographer might ask.`,
    },
    lab: `Read the staff at the harbour steps every ten minutes for two hours around high water. Plot the heights by hand, draw the smoothest curve that you can defend, and state the time of high water with its uncertainty.`,
    problems: `Six short exercises with the printed table for Port Ellery: times, heights, zones, and one line that has been misprinted on purpose. Find it, and say how you know.`,
    log: `Your first log: one hour at the harbour steps, at any state of the tide.`,
    quiz: [
      [
        'Why is high water about fifty minutes later from one day to the next?',
        'The moon moves along its orbit while the earth turns',
        'The earth turns more slowly in summer',
        'The sun pulls the water back',
      ],
      [
        'When is the tidal range largest?',
        'Around new and full moon',
        'Around the quarters',
        'At the equinox only, whatever the moon',
      ],
      [
        'To what level do heights in a tide table refer?',
        'The chart datum of the port',
        'The mean level of all oceans',
        'The deck of the ship',
      ],
      [
        'What decides most about the range at the head of a gulf?',
        'How near its natural period is to half a day',
        'The colour of the water',
        'Its distance from the equator alone',
      ],
    ],
  },
  {
    title: 'The tide as harmonics',
    overview: `A tide curve looks irregular, and yet it is a sum of regular things. In this unit you take a month of heights apart into waves of known periods, and put a prediction together from them again. The arithmetic is that of sines and cosines; the art lies in knowing which waves to expect. Begin with [[constituents|constituents and their names]].`,
    pages: [
      {
        key: 'constituents',
        title: 'Constituents and their names',
        text: `Every regular motion of moon and sun puts a wave of its own into the tide. Each is called a constituent and has a short name: M2 for the moon's half-daily wave of 12 hours and 25 minutes, S2 for the sun's of exactly 12 hours, K1 and O1 for the daily pair that comes from the moon's declination.

The figure says how often a day it comes round. The periods are the same everywhere on earth; the height and the delay of each have to be found port by port.`,
      },
      {
        key: 'amplitude',
        title: 'Amplitude and phase lag',
        text: `At a port a constituent is two numbers. The amplitude is half its range, in metres. The phase lag says how long after its idealised moon or sun has crossed the meridian the wave reaches its crest, expressed in degrees of its own period.

Together they are called harmonic constants, though they are not quite constant: a dredged channel or a new breakwater changes them. A serious port analyses its record again every few years and dates its constants like bread.`,
      },
      {
        key: 'leastsquares',
        title: 'Finding them by least squares',
        text: `Write the observed height as a mean plus a cosine and a sine for each constituent. The periods are known, so the unknowns enter linearly, and a month of hourly heights gives over seven hundred equations for a few dozen numbers. Least squares finds the set that leaves the smallest residual.

Two constituents close in period need a record long enough for one to gain a whole turn on the other. That is the Rayleigh criterion, and it decides what a short record can tell.`,
      },
      {
        key: 'nodal',
        title: 'The slow nodal cycle',
        text: `The plane of the moon's orbit swings round in 18.6 years, and with it the strength of the lunar constituents rises and falls: M2 by nearly four per cent, O1 by almost a fifth. One year of records cannot show it.

The cure is to apply small factors and angles, computed for the middle of the record, so that constants from any year are brought to a common footing. Forget them and the prediction is good in the year of observation and wrong nine years after.`,
      },
    ],
    discussion: {
      title: 'What would you leave out?',
      text: `A small harbour can afford four constituents on its notice board. Which would you choose for Port Ellery, and what would a fisherman notice first about the missing ones? Argue with numbers from the constants sheet.`,
    },
    lab: `With the spreadsheet of hourly heights, fit M2, S2, K1 and O1 by least squares. Hand in amplitudes, lags, the residual plotted against time, and two sentences on what the residual still contains.`,
    problems: `Eight problems on periods, beats and the Rayleigh criterion, from the length of record needed to part S2 from K2 to the age of the tide at Port Ellery.`,
    log: `Log an hour near low water, and mark on a sketch every trace the last high water has left.`,
    quiz: [
      ['What is the period of M2?', '12 hours 25 minutes', '12 hours', '24 hours 50 minutes'],
      [
        'What does the phase lag of a constituent say?',
        'How late its crest is after the body that drives it has passed',
        'How much of it is due to wind',
        'How far the gauge is from the port',
      ],
      [
        'What does the Rayleigh criterion decide?',
        'Which constituents a record of given length can separate',
        'How deep a gauge must be',
        'When to repaint a tide staff',
      ],
      ['Over what time does the nodal cycle run?', '18.6 years', '11 years', '28 days'],
    ],
  },
  {
    title: 'Gauges and datums',
    overview: `A height is worth as much as the level it is measured from. This unit follows a number from the float or the radar beam down to the benchmark in the quay wall and on to the chart. You will level the tide room's gauge, find its zero, and meet the several seas that all claim to be level nought. See [[benchmarks|benchmarks and levelling]] before the field day.`,
    pages: [
      {
        key: 'gauges',
        title: 'Four kinds of gauge',
        text: `A staff is read by eye and never lies, but it sleeps when the observer does. A float in a stilling well draws a curve and clogs. A pressure sensor on the sea bed needs the density of the water and the pressure of the air before it says anything about height. A radar looks down from above, needs nobody, and counts a gull as water.

Good stations keep two kinds, so that each can accuse the other, and a staff to judge between them.`,
      },
      {
        key: 'benchmarks',
        title: 'Benchmarks and levelling',
        text: `A gauge moves: quays settle, brackets are hit by boats, sensors are changed. What must not move is the set of benchmarks on the land, at least three, and at least one in rock. Every year a level is carried from them to the gauge and back, and the two runs must close within a few millimetres.

If they do not, the fault is found before anything else is done. A record without levelling is a story about water; with it, it becomes a measurement.`,
      },
      {
        key: 'datums',
        title: 'A family of datums',
        text: `Mean sea level is what remains when the tide is averaged away over many years. Land surveyors use a national datum near it. Charts use something lower, such as the lowest astronomical tide, so that there is nearly always more water than the chart says. Bridges are given above a high level, for the same careful reason.

Each serves somebody. Trouble comes where two meet in one drawing and only one is named; see [[chartdatum|from gauge zero to chart]].`,
      },
      {
        key: 'chartdatum',
        title: 'From gauge zero to chart',
        text: `The zero of a gauge is an accident of where it was bolted. To turn its readings into heights above chart datum, add the difference that levelling has found, and write down the date of that levelling beside the sum.

Chart datum slopes along a coast, because the range does. Carrying it from one port to the next is done by comparing low waters over a month, not with a spirit level, and the result is checked against every older survey that can be found.`,
      },
    ],
    discussion: {
      title: 'Field notes 3',
      text: `Post one photograph or sketch of a benchmark and explain to someone who has never seen one why it is where it is. Then find a benchmark posted by somebody else that you would not trust, and say why.`,
    },
    lab: `Level from benchmark PE-3 to the gauge and back. Hand in the field book page, the misclosure, and the height of gauge zero with its uncertainty.`,
    problems: `Five reductions: from raw gauge reading to chart datum, to national datum, to clearance under the railway bridge at high water springs.`,
    log: `Log the staff and the radar display side by side for an hour, and explain every difference above two centimetres.`,
    quiz: [
      [
        'Why does a pressure gauge need the air pressure?',
        'It feels the weight of the air as well as of the water',
        'It runs on compressed air',
        'To correct its clock',
      ],
      [
        'Why does a station have at least three benchmarks?',
        'So that one that has moved can be told from the others',
        'One for each constituent',
        'To hold the staff upright',
      ],
      [
        'Which datum is chosen so that there is nearly always more water than the chart says?',
        'Lowest astronomical tide',
        'Mean sea level',
        'High water springs',
      ],
      [
        'What must be written beside a height reduced to chart datum?',
        'The date of the levelling used',
        'The price of the gauge',
        'The name of the harbour master',
      ],
      [
        'How is chart datum carried along a coast?',
        'By comparing low waters over a month or more',
        'With a spirit level on the beach',
        'By satellite photograph',
      ],
    ],
  },
  {
    title: 'Tidal streams',
    overview: `Water that rises must have come from somewhere. This unit turns from heights to currents: how fast, which way, and how far out of step with high water. You will work up a day of drifter tracks from the Narrows and learn why the turn of the stream and the turn of the tide are different events. Begin with [[streamphase|stream and height out of step]].`,
    pages: [
      {
        key: 'streamphase',
        title: 'Stream and height out of step',
        text: `In a wave running freely along a channel the stream is strongest at high and at low water, and slack in between. In a closed bay, where the wave is reflected, slack comes at high and low water and the strongest stream at half tide. Most places lie somewhere between.

So never take slack water from the tide table without asking. At the Narrows the ebb still runs at two knots when the staff at the harbour steps has long begun to rise.`,
      },
      {
        key: 'rectilinear',
        title: 'To and fro, or round and round',
        text: `In a channel the stream runs in, stops, and runs out. In open water it has no walls to obey: its direction turns steadily through the compass and its speed never falls to nothing. Draw the velocity as an arrow from one point each hour, and the tips make an ellipse.

The long axis gives the strongest stream and its direction; the sense of turning depends on latitude and on the bottom. A channel's ellipse is so thin that it looks like a line.`,
      },
      {
        key: 'diamonds',
        title: 'Streams on the chart',
        text: `Charts print a lettered mark where streams have been observed, and in a table the direction and the rates at springs and neaps for each hour before and after high water at a standard port. To find the rate today, compare today's range with the mean ranges and interpolate.

The figures come from a few days of observation, perhaps decades ago, at one spot and one depth. Treat them as good advice from someone who has moved away.`,
      },
      {
        key: 'residual',
        title: 'What the stream leaves behind',
        text: `Average a current over many tides and something remains: the residual. It is small, some centimetres a second, and it decides where sand, larvae and spilled oil end up, because the tide only carries them to and fro.

Headlands make a pair of residual eddies, one on each side, and banks grow in their centres. To see the residual you must remove a signal twenty times as strong, so the record has to be long and the clock good.`,
      },
    ],
    discussion: {
      title: 'Field notes 4',
      text: `The harbour wants to mark a swimming area near the Narrows. On the evidence of your drifter tracks, when would you close it, and how would you tell a holidaymaker in one sentence on a board?`,
    },
    lab: `Work up the drifter tracks of the field day: speeds and directions every ten minutes, an ellipse, and the time of slack water relative to high water at the steps.`,
    problems: `Six problems on interpolation between springs and neaps, set and drift, and the hour at which a boat of five knots can pass the Narrows.`,
    log: `Log the Narrows from the footbridge through one turn of the stream. Note when the surface turns first, and where.`,
    quiz: [
      [
        'In a closed bay with a reflected wave, when is slack water?',
        'Near high and low water',
        'At half tide',
        'Never',
      ],
      [
        'What curve do the tips of hourly velocity arrows make in open water?',
        'An ellipse',
        'A square',
        'A straight line always',
      ],
      [
        'How is the rate of a stream found for today?',
        'By interpolating between springs and neaps with today’s range',
        'By doubling the neap rate',
        'From the wind',
      ],
      [
        'What does the residual current mostly decide?',
        'Where material ends up',
        'When high water comes',
        'The colour of buoys',
      ],
    ],
  },
  {
    title: 'Surge and set-down',
    overview: `Predictions know the moon and nothing of the weather. This unit is about the difference: the hours when the sea stands a metre above or below the table. You will work through the record of one November storm, from the pressure chart to the flooded cellar, and learn what a warning can and cannot say. Begin with [[barometer|the sea as a barometer]].`,
    pages: [
      {
        key: 'barometer',
        title: 'The sea as a barometer',
        text: `Where the air presses less, the sea stands higher: about one centimetre for each hectopascal, if it is given time. A deep low of 970 raises the water by some forty centimetres above what it would be at an average 1013.

The rule is simple because it is static. A low that travels at the speed of a long wave in that depth drags a hump along with it that is far higher than the rule allows, which is how a quiet day can bring a sudden step.`,
      },
      {
        key: 'wind',
        title: 'Wind on shallow water',
        text: `A steady wind pushes the surface, and the water piles up against the shore until its slope pushes back. The set-up grows with the square of the wind, with the length of water it blows over, and, this is the dangerous part, as the depth gets less.

A gale over a deep ocean does little to the level. The same gale over a wide shelf of thirty metres can raise a metre and a half at the coast, and lower it by as much on the side it blows from.`,
      },
      {
        key: 'interaction',
        title: 'Surge meets tide',
        text: `Surge and tide do not simply add. In shallow water a surge travels faster on a high tide than on a low one, and friction is greater when the streams already run hard. The result is that peaks of surge tend to come on the rising tide, some hours before high water.

That is a mercy, and not one to rely on. When a large surge does fall on high water springs, the level is recorded in the quay wall with a chisel and a date.`,
      },
      {
        key: 'returnlevel',
        title: 'Levels that return',
        text: `The level reached on average once in a hundred years is not a date in a diary. It is the height with one chance in a hundred in any single year, estimated from a record that is usually shorter than a century and a sea that is rising meanwhile.

Give it with its uncertainty and with the years of the record. A wall built to the bare number will, over a working life of fifty years, be overtopped with a chance of about four in ten.`,
      },
    ],
    discussion: {
      title: 'Surge discussion',
      text: `It is Thursday noon. The model gives a surge of 0.9 m for the early hours of Saturday, two hours before high water springs, with a spread of 0.4 m. Would you have the harbour gates closed, and when would you say so? Take a side, and answer one person of the other.`,
    },
    lab: `Subtract the prediction from the gauge record of the November storm. Plot the residual beside air pressure and wind, and say which of them leads.`,
    problems: `Seven problems: the barometric rule, set-up over a shelf of two slopes, and the chance of at least one overtopping in fifty years.`,
    log: `Choose a windy day. Log the level against the prediction for an hour, and the wind each quarter of an hour.`,
    quiz: [
      [
        'How much does the sea rise for a fall of air pressure of one hectopascal?',
        'About one centimetre',
        'About ten centimetres',
        'About one millimetre',
      ],
      [
        'Where does a gale raise the level most?',
        'Over a wide, shallow shelf',
        'Over the deep ocean',
        'In the middle of a lake',
      ],
      ['When do peaks of surge tend to come?', 'On the rising tide', 'Exactly at low water', 'Only at neaps'],
      [
        'What is the hundred-year level?',
        'The level with one chance in a hundred in any year',
        'The level due in a hundred years',
        'The highest level ever seen',
      ],
    ],
  },
  {
    title: 'Soundings and reductions',
    overview: `A survey launch measures depth below itself, while the sea under it rises and falls. This unit takes the tide out of soundings, so that a chart drawn on Tuesday agrees with one drawn on Friday. You will reduce a real line from the outer harbour and defend every correction. The soundings project grows out of it. Begin with [[reduction|from sounding to charted depth]].`,
    pages: [
      {
        key: 'reduction',
        title: 'From sounding to charted depth',
        text: `A sounding is the depth of the bottom below the transducer. Add the draught to have it below the surface; take away the height of the tide at that place and minute to have it below chart datum. That last number goes on the chart.

Each correction has a sign that is easy to get wrong at three in the morning. The test is always the same: does a rock that dries come out above datum, and does the cross line agree with the main line where they meet?`,
      },
      {
        key: 'soundspeed',
        title: 'The speed of sound',
        text: `An echo sounder measures time and is told a speed. In the sea it lies between 1450 and 1550 metres a second, rising with temperature, salinity and pressure. An error of two per cent in speed is an error of forty centimetres in twenty metres of water.

Lower a probe at the start, at the end, and whenever the water changes colour. Fresh water from the river lies on top and bends the outer beams of a swath until a flat floor seems to smile.`,
      },
      {
        key: 'cotidal',
        title: 'Tides between the gauges',
        text: `The gauge stands in the harbour; the launch is eight miles out. Between them the tide changes in height and in time. Co-tidal charts show lines of equal time and of equal range, and from them each part of the survey gets its own factor and delay.

Where the lines crowd, put out another gauge for the season. A pressure gauge on the bottom for thirty days costs less than a week of surveying done against the wrong tide.`,
      },
      {
        key: 'uncertainty',
        title: 'Saying how sure you are',
        text: `Every depth carries the errors of tide, draught, motion, sound speed, position and echo. They are combined as the root of the sum of their squares, and the result, doubled, is given as the uncertainty at 95 per cent.

International standards set what a survey of each order may have: a constant part for what does not grow with depth, and a part that does. Hand in no depth without it. A number that does not say how sure it is has been measured only once.`,
      },
    ],
    discussion: {
      title: 'Field notes 6',
      text: `Two survey lines cross, and disagree by half a metre. Post the first three things you would check, in order, and the cheapest way to check each.`,
    },
    lab: `Reduce line 14 of the outer harbour survey: draught, sound speed, tide. Compare with the cross line and account for the difference.`,
    problems: `Five reductions and an uncertainty budget, from raw soundings over the bar to the least depth that may be printed.`,
    log: `Log from the survey pontoon during a sounding run. Note what was written down, by whom, and what was not.`,
    quiz: [
      [
        'What is taken away from the depth below the surface to have the charted depth?',
        'The height of the tide at that place and minute',
        'The draught',
        'The height of the mast',
      ],
      [
        'Within what limits does the speed of sound in the sea lie?',
        '1450 to 1550 metres a second',
        '330 to 350 metres a second',
        '2900 to 3100 metres a second',
      ],
      [
        'What do co-tidal charts show?',
        'Lines of equal time and of equal range of the tide',
        'Lines of equal depth',
        'Where cables lie',
      ],
      [
        'How are independent errors combined?',
        'As the root of the sum of their squares',
        'By adding them up',
        'By taking the largest',
      ],
    ],
  },
  {
    title: 'Predictions at work',
    overview: `The last unit puts the pieces to use: a prediction somebody will sail by. You will make a table for a port that has none, publish it with its limits, and meet the people who rely on it. The final practical is held in the exam period and covers all seven units. Begin with [[making|making a table]], and bring your constants from the second unit.`,
    pages: [
      {
        key: 'making',
        title: 'Making a table',
        text: `Predict the height every ten minutes for a year from the harmonic constants, with nodal corrections for the middle of each month. Find the turning points, fit a parabola through three heights at each, and round times to the minute and heights to the decimetre.

Then check against a stretch of observations that was not used for the fit. State the standard deviation of the difference in plain words on the first page, where nobody can miss it.`,
      },
      {
        key: 'users',
        title: 'Who uses a table, and for what',
        text: `A pilot wants the height over the bar at one moment and will not forgive five minutes. A mussel gatherer wants to know how long a bank stays dry. An engineer wants the highest level of the year, a swimmer the warmest hour, a lock keeper the next three turns.

They read the same page with different eyes. Before you set it, show a draft to one of each, and watch where a finger stops.`,
      },
      {
        key: 'zones',
        title: 'Clocks, zones and summer time',
        text: `A table in the wrong hour is worse than none. Print the zone on every page, not only on the cover; say whether summer time has been added, and mark the two nights on which clocks change. One hour on those nights does not exist, another happens twice.

Machines should keep universal time and leave the clock on the wall to the last step. People should be shown the clock on their wall and never asked to add.`,
      },
      {
        key: 'limits',
        title: 'What a prediction does not know',
        text: `A prediction knows the moon, the sun and the past of one place. It knows nothing of tomorrow's wind, of the air's pressure, of the flood coming down the river or of the bank that moved in the last storm.

Say so, briefly, and say how much it usually matters: at Port Ellery, two days in three within a decimetre, and one day in fifty more than four out. Honesty about limits is what makes the other three hundred and sixty days believed.`,
      },
    ],
    discussion: {
      title: 'Field notes 7',
      text: `Post the first page of your table as a draft. Read two others as the person you were given, pilot, gatherer, engineer or swimmer, and say where your finger stopped.`,
    },
    lab: '',
    problems: '',
    log: `The last log: return to the place of your first, at the same state of the tide, and write what you see now that you did not see then.`,
    quiz: [
      [
        'How is a turning point found between predicted heights?',
        'With a parabola through three heights',
        'By taking the nearest hour',
        'By eye from the window',
      ],
      [
        'Against what must a new table be checked?',
        'Observations that were not used for the fit',
        'The observations it was made from',
        'The table of another port',
      ],
      [
        'What should be printed on every page of a table?',
        'The time zone',
        'The price',
        'The author’s address',
      ],
      ['What does a prediction know nothing of?', 'Tomorrow’s wind', 'The moon', 'The time of year'],
    ],
  },
]

export const works = {
  midterm: `A paper of 1200 words. Take one month from the Port Ellery record and tell its story: astronomy, weather, and whatever is left that neither explains. Figures of your own making; sources named.`,
  soundings: `The soundings project: survey a corner of the inner harbour with the small sounder, reduce it to chart datum, and hand in a fair sheet with an uncertainty for every depth. Groups of three.`,
  atlas: `A stream atlas of the Narrows: twelve small charts, one for each lunar hour, with arrows from your own drifters and from nobody else's.`,
  practical: `The final practical takes two hours. You are given a port, its constants and a morning of observations, and you hand in a reduced sounding, a prediction for one day, and a page on what you would not promise.`,
}

/** What students wrote, to be dealt out: nothing in it is about a real person. */
export const remarks = [
  'The staff at the steps moved eleven centimetres while I was looking for my pencil.',
  'I had not expected the water to turn first along the wall and only later in the middle.',
  'My curve has a shoulder before high water and I cannot explain it yet.',
  'The old ring in the quay is a better mark than the painted one, which somebody has repainted.',
  'Nobody in my town would notice half a metre, and I think that is the point.',
  'I would rather close the gates twice for nothing than once too late.',
  'If the spread is as large as the margin, the honest answer is that we do not know.',
  'Two of my readings are a minute apart and disagree by three centimetres, so I kept both.',
  'The residual looks like the wind with a delay of about two hours.',
  'My grandmother still says the sea is late today, and she means the age of the tide.',
  'I do not trust the benchmark on the new pier: the pier is newer than the mark.',
  'We got a misclosure of four millimetres on the second try and of nineteen on the first.',
]
export const givenNames = [
  'Aldous',
  'Brisa',
  'Corwin',
  'Delphie',
  'Eskil',
  'Fenna',
  'Garrick',
  'Hedda',
  'Ianto',
  'Jorun',
  'Kestrel',
  'Linnet',
  'Merrick',
  'Nerys',
  'Osric',
  'Petra',
  'Quill',
  'Rhoswen',
  'Sorrel',
  'Tamsin',
  'Ulla',
  'Veryan',
  'Wystan',
  'Xanthe',
  'Yestin',
  'Zephra',
  'Arden',
  'Bryony',
  'Cassian',
  'Dagny',
  'Elowen',
]
export const familyNames = [
  'Vantongle',
  'Ashgrove-Pell',
  'Brackwater',
  'Corriemuir',
  'Dunlathe',
  'Eskmire',
  'Farrowby',
  'Gullane-Reeve',
  'Harthouse',
  'Inverskye',
  'Jessamy',
  'Kelderling',
  'Lorrimond',
  'Marrowick',
  'Netherby-Quay',
  'Ormsgarth',
  'Pellowden',
  'Quarrendon',
  'Ravelstane',
  'Sandhaven',
  'Thornquist',
  'Ullesmere',
  'Varrowdale',
  'Wherrily',
  'Yarrowick',
  'Zennorby',
  'Ambersole',
  'Brindlecove',
  'Coldharrow',
  'Driftmoor',
  'Elverstrand',
]
