//! Which act each address is: with the table of rights in the core, the whole of who may ask what.

use bold_stance_people::Act;

/// What an address wants of whoever asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wants {
    /// Nobody has to be known: it tells nothing of a shop, or lets somebody in.
    Nobody,
    /// Somebody who is signed in, whatever they may.
    Anybody,
    /// Somebody who may do this.
    One(Act),
}

/// What the operation of that id wants; none where there is no such operation.
#[must_use]
pub fn wanted(operation: &str) -> Option<Wants> {
    use Act::{Enrol, Library, Look, Measure, People, Plan, Records, Settings, Ticket, Turn};
    let act = match operation {
        "health" | "session" | "signInPin" | "signInPassphrase" | "signOut" | "claimShop" | "useSlip"
        | "useCode" | "pickMember" => return Some(Wants::Nobody),
        "ownUnits" | "setOwnPin" | "sessions" | "endSession" | "events" => return Some(Wants::Anybody),
        "readAimWindow" | "aims" | "archetypes" | "fitArchetype" | "drawCar" | "contactPatches" | "jig"
        | "cornerFile" | "diagnose" | "gauge" | "gaugeStream" | "lookAtGeometry" | "heightTarget"
        | "inspection" | "listJobs" | "exportJobs" | "exportJobsXlsx" | "getJob" | "exportJob"
        | "notePhoto" | "exportPlans" | "exportPlansXlsx" | "exportReadings" | "exportReadingsXlsx"
        | "previewReading" | "jobStory" | "treadLog" | "exportTread" | "exportTreadXlsx" | "ladders"
        | "methods" | "lookAtMoving" | "parts" | "exportPartsCsv" | "exportPartsJson" | "exportPartsXlsx"
        | "lookAtPart" | "madeParts" | "searchPlans" | "searchCar" | "handover" | "onJack"
        | "partsToOrder" | "orderList" | "orderListXlsx" | "settingSheet" | "predict" | "shop"
        | "shopMemory" | "lenders" | "turnable" | "forecastWear" | "wearData" | "sheetCode" => Look,
        "createJob" | "bookJobs" | "sameCarAgain" | "putAway" | "addNote" | "strikeNote" | "saveTicket" => {
            Ticket
        }
        "tellGauge" | "addReading" | "importReadings" | "addForm" | "writeTread" | "importTread"
        | "strikeTread" | "saveVehicle" | "openVisit" | "saveAnswers" | "putRight" => Measure,
        "importJob" | "choosePlan" | "createPlan" | "importPlans" | "savePlan" | "removePlan"
        | "copyPlan" => Plan,
        "markStep" | "turnedAgain" | "doAfter" => Turn,
        "keepAim" | "removeAim" | "keepShape" | "removeShape" | "importParts" | "keepPart" | "shopOffer"
        | "takeOffer" | "putOut" => Library,
        "makeCode" | "enrolHere" => Enrol,
        "saveShopSettings" | "saveTrust" => Settings,
        "people" | "addMember" | "saveMember" | "setPin" | "setPassphrase" | "endSessions"
        | "removeDevice" => People,
        "record" | "recordCsv" | "erasePersonal" | "ticketsOfPlate" | "customerFile" | "eraseCustomer" => {
            Records
        }
        _ => return None,
    };
    Some(Wants::One(act))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::api::description;
    use std::collections::BTreeSet;

    /// No address is forgotten, and none stands here that is not described.
    #[test]
    fn every_address_wants_something() {
        let doc = serde_json::to_value(description()).unwrap();
        let mut seen = BTreeSet::new();
        for (path, item) in doc["paths"].as_object().unwrap() {
            for (method, op) in item.as_object().unwrap() {
                let id = op["operationId"].as_str().unwrap();
                assert!(wanted(id).is_some(), "{method} {path}: {id}");
                seen.insert(id.to_owned());
            }
        }
        assert!(seen.len() > 80 && wanted("nothing").is_none());
    }

    #[test]
    fn what_writes_is_more_than_a_look() {
        let doc = serde_json::to_value(description()).unwrap();
        let worked_out = ["preview", "fit", "look", "made", "search", "jacked"];
        for (path, item) in doc["paths"].as_object().unwrap() {
            for (method, op) in item.as_object().unwrap() {
                let writes =
                    method == "put" || method == "delete" || method == "post" && path.contains("/jobs");
                if writes && !worked_out.iter().any(|w| path.contains(w)) {
                    let id = op["operationId"].as_str().unwrap();
                    assert_ne!(wanted(id), Some(Wants::One(Act::Look)), "{method} {path}");
                }
            }
        }
    }
}
