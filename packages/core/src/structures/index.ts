export { shellCourses, shellPieces, type ShellCourse } from './shell.ts';
export { listOfBuilding, shellList, shellName, unlistedBuildings } from './lists.ts';
