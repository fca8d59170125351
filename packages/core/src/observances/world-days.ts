import type { MovingDay, YearlyDay } from './index.js';

const day = (date: string, name: string, subjects: string): YearlyDay => {
  const [month = '', of = ''] = date.split('-');
  return { name, month: Number(month), day: Number(of), subjects: subjects.split(' ') };
};

/**
 * International days that are on the same date every year, as the United Nations and its agencies proclaimed them; from memory. The words are what
 * each is about, and ours.
 */
export const WORLD_DAYS: readonly YearlyDay[] = [
  day('01-24', 'International Day of Education', 'school learning teaching children'),
  day('02-02', 'World Wetlands Day', 'nature water birds marsh'),
  day('02-10', 'World Pulses Day', 'food beans cooking farming'),
  day('02-11', 'International Day of Women and Girls in Science', 'women science research school'),
  day('02-13', 'World Radio Day', 'radio sound listening voice'),
  day('02-21', 'International Mother Language Day', 'language words culture'),
  day('03-03', 'World Wildlife Day', 'nature animals plants forest'),
  day('03-08', 'International Women’s Day', 'women people work'),
  day('03-20', 'International Day of Happiness', 'happiness people life'),
  day('03-21', 'International Day of Forests', 'trees forest wood nature'),
  day('03-21', 'World Poetry Day', 'poetry words books culture'),
  day('03-22', 'World Water Day', 'water rain rivers nature'),
  day('03-27', 'World Theatre Day', 'theatre stage culture'),
  day('03-30', 'International Day of Zero Waste', 'waste recycling leftovers repair'),
  day('04-07', 'World Health Day', 'health body medicine'),
  day('04-21', 'World Creativity and Innovation Day', 'ideas craft design'),
  day('04-22', 'International Mother Earth Day', 'earth soil nature climate'),
  day('04-23', 'World Book and Copyright Day', 'books reading words'),
  day('04-29', 'International Dance Day', 'dance music culture'),
  day('04-30', 'International Jazz Day', 'music jazz sound'),
  day('05-03', 'World Press Freedom Day', 'press news words'),
  day('05-15', 'International Day of Families', 'families children people'),
  day('05-18', 'International Museum Day', 'museum history art collection'),
  day('05-20', 'World Bee Day', 'bees honey garden flowers insects'),
  day('05-21', 'International Tea Day', 'tea drinks plants'),
  day('05-22', 'International Day for Biological Diversity', 'nature seeds plants animals'),
  day('06-01', 'World Milk Day', 'milk dairy food farming'),
  day('06-03', 'World Bicycle Day', 'bicycle travel sport town'),
  day('06-05', 'World Environment Day', 'nature climate plants earth'),
  day('06-08', 'World Oceans Day', 'sea ocean boats fish tide'),
  day('06-18', 'Sustainable Gastronomy Day', 'cooking food restaurant kitchen'),
  day('06-21', 'International Day of Yoga', 'yoga health body'),
  day('06-25', 'Day of the Seafarer', 'sea boats ships sailing harbour'),
  day('07-11', 'World Population Day', 'people towns'),
  day('07-15', 'World Youth Skills Day', 'young apprentices craft work training'),
  day('07-30', 'International Day of Friendship', 'friends people'),
  day('08-09', 'International Day of the World’s Indigenous Peoples', 'native culture people land'),
  day('08-12', 'International Youth Day', 'young people school'),
  day('08-19', 'World Humanitarian Day', 'helpers people charity'),
  day('09-07', 'International Day of Clean Air for Blue Skies', 'air sky climate'),
  day('09-08', 'International Literacy Day', 'reading school words'),
  day('09-21', 'International Day of Peace', 'peace people'),
  day('09-27', 'World Tourism Day', 'travel visitors guests town'),
  day('09-29', 'International Day of Awareness of Food Loss and Waste', 'food waste leftovers bread'),
  day('10-01', 'International Coffee Day', 'coffee drinks cafe morning'),
  day('10-01', 'International Day of Older Persons', 'older people families'),
  day('10-05', 'World Teachers’ Day', 'teachers school learning'),
  day('10-10', 'World Mental Health Day', 'health mind people'),
  day('10-15', 'International Day of Rural Women', 'farming women land'),
  day('10-16', 'World Food Day', 'food farming bread harvest cooking'),
  day('10-27', 'World Day for Audiovisual Heritage', 'film sound archive history'),
  day('10-31', 'World Cities Day', 'town city streets building'),
  day('11-10', 'World Science Day for Peace and Development', 'science research school'),
  day('11-16', 'International Day for Tolerance', 'people culture'),
  day('11-20', 'World Children’s Day', 'children school families'),
  day('12-03', 'International Day of Persons with Disabilities', 'people access inclusion'),
  day('12-05', 'International Volunteer Day', 'volunteers helpers people'),
  day('12-05', 'World Soil Day', 'soil earth garden compost farming'),
  day('12-10', 'Human Rights Day', 'rights people law'),
  day('12-11', 'International Mountain Day', 'mountains nature travel'),
];

const moving = (month: number, weekday: number, nth: number, name: string, subjects: string): MovingDay => ({
  name,
  month,
  weekday,
  nth,
  subjects: subjects.split(' '),
});
const [MONDAY, TUESDAY, THURSDAY, FRIDAY, SATURDAY, SUNDAY] = [1, 2, 4, 5, 6, 7];

/**
 * International days that are on a weekday of their month: as the United Nations proclaimed them (cooperatives A/RES/47/90, habitat A/RES/40/202,
 * victims of traffic A/RES/60/5), or as those who keep them agreed; from memory.
 */
export const MOVING_DAYS: readonly MovingDay[] = [
  moving(1, SUNDAY, -1, 'World Leprosy Day', 'health medicine people'),
  moving(3, THURSDAY, 2, 'World Kidney Day', 'health body water'),
  moving(5, TUESDAY, 1, 'World Asthma Day', 'health air breathing'),
  moving(5, SATURDAY, 2, 'World Migratory Bird Day', 'birds nature travel'),
  moving(7, SATURDAY, 1, 'International Day of Cooperatives', 'cooperative work people trade'),
  moving(8, FRIDAY, 1, 'International Beer Day', 'beer drinks brewing bar'),
  moving(9, THURSDAY, -1, 'World Maritime Day', 'sea ships boats harbour'),
  moving(10, MONDAY, 1, 'World Habitat Day', 'housing homes town building'),
  moving(10, THURSDAY, 2, 'World Sight Day', 'eyes health seeing'),
  moving(10, SATURDAY, 2, 'World Hospice and Palliative Care Day', 'care health people'),
  moving(11, THURSDAY, 3, 'World Philosophy Day', 'thinking books school'),
  moving(11, SUNDAY, 3, 'World Day of Remembrance for Road Traffic Victims', 'roads traffic safety people'),
];
