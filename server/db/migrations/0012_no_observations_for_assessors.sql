UPDATE `rounds` SET `settings` = json_remove(`settings`, '$.assessorsSeeObservations');
