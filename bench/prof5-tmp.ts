import { coldPlans, slope, replans } from './planning';
coldPlans(); slope(); replans();
